import { expose } from 'comlink';
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';

/** A sheet of paper in tenths of a millimetre. */
export interface Paper {
  readonly width: number;
  readonly height: number;
}

let toolkit: Promise<VerovioToolkit> | null = null;

const engraver = {
  /** Engraves a MusicXML score as one SVG for each page. */
  async engrave(musicXml: string, paper: Paper): Promise<string[]> {
    toolkit ??= createVerovioModule().then((module) => new VerovioToolkit(module));
    const verovio = await toolkit;
    verovio.setOptions({
      pageWidth: paper.width,
      pageHeight: paper.height,
      pageMarginTop: 110,
      pageMarginBottom: 100,
      pageMarginLeft: 110,
      pageMarginRight: 110,
      adjustPageHeight: false,
      breaks: 'auto',
      header: 'auto',
      footer: 'none',
      svgViewBox: true,
      spacingSystem: 9,
      justifyVertically: false,
    });
    if (!verovio.loadData(musicXml)) throw new Error('The score could not be engraved.');
    return Array.from({ length: verovio.getPageCount() }, (_, i) => verovio.renderToSVG(i + 1));
  },
};

export type EngraverApi = typeof engraver;

expose(engraver);
