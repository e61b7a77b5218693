import { expose } from 'comlink';
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';

/** A sheet of paper in tenths of a millimetre. */
export interface Paper {
  readonly width: number;
  readonly height: number;
}

let toolkit: Promise<VerovioToolkit> | null = null;

/** The engraver itself, made with the first score or ahead of it. */
function engraverOf(): Promise<VerovioToolkit> {
  return (toolkit ??= createVerovioModule().then((module) => new VerovioToolkit(module)));
}

const engraver = {
  /** Makes the engraver before there is a score. */
  async prepare(): Promise<void> {
    await engraverOf();
  },

  /** Lays out a MusicXML score, and engraves its first page: an SVG. The others are asked for one by one. */
  async lay(musicXml: string, paper: Paper): Promise<{ pages: number; first: string }> {
    const verovio = await engraverOf();
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
    return { pages: verovio.getPageCount(), first: verovio.renderToSVG(1) };
  },

  /** Another page of the score that was laid out last, the first one being 1. */
  async page(number: number): Promise<string> {
    return (await engraverOf()).renderToSVG(number);
  },
};

export type EngraverApi = typeof engraver;

expose(engraver);
