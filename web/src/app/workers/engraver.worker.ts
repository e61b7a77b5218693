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
    const scale = 40;
    verovio.setOptions({
      pageWidth: Math.round((paper.width * 100) / scale),
      pageHeight: Math.round((paper.height * 100) / scale),
      pageMarginTop: 250,
      pageMarginBottom: 200,
      pageMarginLeft: 250,
      pageMarginRight: 250,
      scale,
      adjustPageHeight: false,
      breaks: 'auto',
      header: 'auto',
      footer: 'none',
      svgViewBox: true,
      spacingStaff: 10,
      justifyVertically: false,
    });
    if (!verovio.loadData(musicXml)) throw new Error('The score could not be engraved.');
    return Array.from({ length: verovio.getPageCount() }, (_, i) => verovio.renderToSVG(i + 1));
  },
};

export type EngraverApi = typeof engraver;

expose(engraver);
