import { DefaultUrlSerializer, type UrlTree } from '@angular/router';

/** Reads addresses as they are sent, where what stands behind the "#" may have come to harm on the way: its screen says so then. */
export class Addresses extends DefaultUrlSerializer {
  override parse(url: string): UrlTree {
    try {
      return super.parse(url);
    } catch {
      const [address, ...behind] = url.split('#');
      const tree = super.parse(address);
      tree.fragment = behind.join('#');
      return tree;
    }
  }
}
