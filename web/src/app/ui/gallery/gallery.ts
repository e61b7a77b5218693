import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { arrange } from '@joined-hands/core/arrange';
import { newDocument, type Song } from '@joined-hands/core/song';
import { TICKS_PER_QUARTER } from '@joined-hands/core/time';
import { Toasts } from '../../platform/toasts';
import { Check } from '../check';
import { Choice } from '../choice';
import { Dropdown } from '../dropdown';
import { Energy } from '../energy';
import { Fold } from '../fold';
import { Go } from '../go';
import { JoinStrip } from '../join-strip/join-strip';
import { Keyboard } from '../keyboard/keyboard';
import { LittleKeyboard } from '../little-keyboard';
import { More } from '../more';
import { NumberField } from '../number-field';
import { Offers } from '../offers';
import { Pop } from '../pop';
import { Pressed } from '../pressed';
import { Signs } from '../signs';
import { Slider } from '../slider';
import { TextField } from '../text-field';
import { What } from '../words/what';

/** Four bars that nobody knows: all that the strip can show is in them. */
const SONG: Song = {
  title: 'Four Bars for the Gallery',
  composer: null,
  key: { tonic: 'Eb', mode: 'major' },
  tempo: 84,
  pickup: 0,
  length: 16 * TICKS_PER_QUARTER,
  meters: [{ at: 0, beats: 4, unit: 4 }],
  melody: ['Eb5', 'F5', 'G5', 'Bb5', 'Ab5', 'G5', 'F5', 'Eb5', 'F5', 'G5', 'Ab5', 'G5', 'F5', 'D5', 'Eb5'].map((pitch, i) => ({
    at: i * TICKS_PER_QUARTER,
    length: i === 14 ? 2 * TICKS_PER_QUARTER : TICKS_PER_QUARTER,
    pitch,
    lyric: null,
  })),
  chords: ['Eb', 'Ab', 'Bb7', 'Eb'].map((symbol, i) => ({ at: 4 * i * TICKS_PER_QUARTER, symbol })),
  marks: [],
};

/** Every part of the interface that screens share, in both themes side by side. It is there only while the page is developed. */
@Component({
  selector: 'jh-gallery',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Check,
    Choice,
    Dropdown,
    Energy,
    Fold,
    Go,
    JoinStrip,
    Keyboard,
    LittleKeyboard,
    More,
    NgTemplateOutlet,
    NumberField,
    Offers,
    Pop,
    Pressed,
    Signs,
    Slider,
    TextField,
    What,
  ],
  template: `
    <ng-template #parts>
      <h2>Buttons</h2>
      <p>
        <button type="button" class="btn main">Main</button> <button type="button" class="btn">Usual</button>
        <button type="button" class="btn small">Small</button> <button type="button" class="btn bare">Bare</button>
        <button type="button" class="btn" disabled>Not now</button> <button type="button" class="link">A link</button>
        <button type="button" class="btn small" [jhPressed]="on()" (click)="on.set(!on())">Stays pressed</button>
        <jh-go [going]="on()" (pressed)="on.set(!on())" />
      </p>
      <h2>Choices</h2>
      <p><jh-choice label="Hands" [entries]="entries" [value]="entry()" (chosen)="entry.set($event)" /></p>
      <p><jh-choice class="small" label="Small" [entries]="entries" [value]="entry()" (chosen)="entry.set($event)" /></p>
      <p><jh-energy label="Energy" [value]="energy()" (chosen)="energy.set($event)" /></p>
      <p>
        <jh-more label="More" [items]="items" />
        <jh-pop label="Opens" value="a panel"
          ><ng-template><p>What it holds.</p></ng-template></jh-pop
        >
        <jh-what term="difficulty" />
      </p>
      <h2>Fields</h2>
      <p><jh-dropdown label="One of a list" [entries]="entries" [(value)]="entry" /></p>
      <p><jh-check [checked]="on()" (checkedChange)="on.set($event)">Something that is so or not</jh-check></p>
      <p><jh-slider label="A figure between two ends" [to]="10" [(value)]="figure" /></p>
      <jh-number label="A number" [value]="figure()" (valueChange)="figure.set($event ?? 0)" />
      <jh-text label="A line of words" [(value)]="words" />
      <jh-fold title="A line that unfolds"><p>What belongs to it.</p></jh-fold>
      <h2>Signs</h2>
      <p><jh-signs text="F# minor, Bb7, Ebmaj7/G, C# and Db on one line of letters" /></p>
      <h2>Offers</h2>
      <jh-offers [offers]="offers" />
      <h2>Keys</h2>
      <jh-little-keyboard [pitches]="['Eb3', 'G3', 'Bb3']" [range]="{ low: 48, high: 72 }" />
      <div class="keys"><jh-keyboard [size]="61" [pressed]="[{ midi: 63, hand: 'left', text: '5' }]" /></div>
      <h2>The join strip</h2>
      <jh-join-strip [part]="part" [bars]="bars" [selection]="{ kind: 'chord', at: 0 }" />
      <p><button type="button" class="btn small" (click)="say()">Say something</button></p>
    </ng-template>
    <section class="on-paper"><ng-container [ngTemplateOutlet]="parts" /></section>
    <section class="in-evening"><ng-container [ngTemplateOutlet]="parts" /></section>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 1fr 1fr;
    }
    section {
      min-width: 0;
      padding: 24px;
      overflow-x: auto;
      background: var(--paper);
      color: var(--ink);
    }
    p {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
      margin: 0 0 12px;
    }
    .keys {
      height: 110px;
    }
    h2 {
      margin: 22px 0 8px;
      font-size: 19px;
    }
  `,
})
export class Gallery {
  private readonly toasts = inject(Toasts);
  protected readonly on = signal(false);
  protected readonly entries = [
    { id: 'right', text: 'Right hand' },
    { id: 'left', text: 'Left hand' },
    { id: 'joined', text: 'Joined' },
  ];
  protected readonly entry = signal<string>('joined');
  protected readonly figure = signal(4);
  protected readonly words = signal('Four bars');
  protected readonly energy = signal(3);
  protected readonly items = [
    { name: 'One thing', run: () => this.say() },
    { name: 'Another', run: () => this.say() },
  ];
  private readonly arrangement = arrange(newDocument(SONG));
  protected readonly bars = this.arrangement.bars;
  protected readonly part = this.arrangement.parts[0];
  protected readonly offers = this.part.chords[0].alternatives.slice(0, 3).map(({ pitches, motion }) => ({
    id: pitches.join(' '),
    title: pitches.join(' '),
    aside: `moves ${motion}`,
    why: 'What it does.',
    pitches,
  }));

  protected say(): void {
    this.toasts.say('Said once, with a way back.', { label: 'Undo', run: () => undefined });
  }
}
