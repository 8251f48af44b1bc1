// What is true of a simulated charger: data only, so that a reader can check the physics against it.
import type { SourceObject } from '@lastmark/core/pd';

/** Power each occupied port may give, W, when exactly these ports are occupied. */
export interface Allocation {
  readonly ports: readonly string[];
  readonly watts: Readonly<Record<string, number>>;
}

export interface PortTruth {
  readonly label: string;
  readonly connector: 'C' | 'A' | 'captive C';
  /** What it may give alone, W. */
  readonly watts: number;
  /** What it offers alone, in order. */
  readonly offers: readonly SourceObject[];
  /** Modes outside PD it answers, by id. */
  readonly signals: readonly string[];
  /** Positions it lists and then refuses. */
  readonly refuses: readonly number[];
  /** Part of an offered current it can give at all, its voltage going; left out for all of it. */
  readonly weak?: number;
}

/** Loss in W at an output P of nameplate N: fixed + proportional·P + resistive·P²/N, more at low mains and low output volts. */
export interface LossTruth {
  readonly fixed: number;
  readonly proportional: number;
  readonly resistive: number;
  /** How much more of the resistive part at 115 V than at 230 V, as a fraction. */
  readonly lowMains: number;
  /** Loss per W of output for every volt the output lies below 20 V, W/(W·V). */
  readonly perVoltBelow20: number;
}

/** Input with nothing drawn: a floor, and bursts that recharge the output. */
export interface IdleTruth {
  /** W between bursts */
  readonly floor: number;
  /** W during one */
  readonly burst: number;
  /** s from one to the next */
  readonly period: number;
  /** s */
  readonly length: number;
}

/** Ripple at an output, V peak to peak at nameplate current. */
export interface RippleTruth {
  /** At twice the mains frequency, V */
  readonly mains: number;
  /** At the switching frequency, V */
  readonly switching: number;
  /** Hz */
  readonly switchingHertz: number;
  /** Of light-load bursts, V */
  readonly burst: number;
  /** Hz */
  readonly burstHertz: number;
  /** Fraction of nameplate below which it bursts. */
  readonly burstBelow: number;
}

/** Two lumps of heat: the inside, and the shell the room cools. */
export interface HeatTruth {
  /** J/K */
  readonly insideCapacity: number;
  readonly shellCapacity: number;
  /** W/K */
  readonly insideToShell: number;
  readonly shellToRoom: number;
  /** Rise of each face as a fraction of the shell's. */
  readonly faces: { readonly front: number; readonly back: number; readonly side: number };
  /** Inside temperature from which it gives less, K; infinite for never. */
  readonly throttleAt: number;
  /** What it then gives, as a fraction of what was asked. */
  readonly throttleTo: number;
  /** Inside temperature at which it cuts out, K; infinite for never. */
  readonly tripAt: number;
}

export interface OverloadTruth {
  /** Times the offered current at which it gives up. */
  readonly at: number;
  readonly how: 'folds back' | 'cuts off';
  /** s until it comes back; null stays off until unplugged. */
  readonly recovery: number | null;
}

/** What happens at the supply side: switching on, switching off, and a DC supply that sags. */
export interface SupplyTruth {
  /** Resistance that limits the current as it is switched on, Ω */
  readonly inrushOhms: number;
  /** Capacitance behind it, F */
  readonly bulkFarads: number;
  /** How fast an output without load empties once the bulk is empty: time constant, s */
  readonly bleedSeconds: number;
  /** DC supply below which output goes away, and above which it comes back, V; null for a mains charger. */
  readonly cutOut: number | null;
  readonly restart: number | null;
  /** Part of its voltage an output sags for each volt a DC supply lies under 12 V. */
  readonly droopBelow12: number;
}

export interface ChargerTruth {
  readonly name: string;
  readonly kind: 'wall' | 'desktop' | 'car';
  /** W */
  readonly nameplate: number;
  readonly ports: readonly PortTruth[];
  /** For each set of two ports or more; a set not named shares in proportion to what each could give. */
  readonly allocations: readonly Allocation[];
  /** Time VBUS is gone when a port renegotiates, s. */
  readonly gap: number;
  readonly loss: LossTruth;
  readonly idle: IdleTruth;
  /** Output from which power-factor correction works, W; infinite for none. */
  readonly correctionFrom: number;
  /** Source resistance of an output, Ω; negative makes up for a cable. */
  readonly sourceOhms: number;
  /** Fraction by which levels lie above their nominal voltage. */
  readonly levelOffset: number;
  readonly ripple: RippleTruth;
  readonly heat: HeatTruth;
  readonly overload: OverloadTruth;
  readonly supply: SupplyTruth;
  /** What its own display shows of the power it gives, as a factor; null for one without a display. */
  readonly display: number | null;
  /** Power that is held for a time only; null when everything is held. */
  readonly peak: { readonly above: number; readonly seconds: number; readonly downTo: number } | null;
}

export interface CableTruth {
  readonly name: string;
  /** Copper, both ways, at 20 °C, Ω */
  readonly copperOhms: number;
  /** Contacts, Ω */
  readonly contactOhms: number;
  /** What its marker says; empty for none. Eight digits a word. */
  readonly marker: readonly string[];
  readonly marks: 'none' | '3 A' | '5 A' | '5 A EPR';
  /** How contacts differ from one plugging to the next, standard deviation as a fraction; left out for not at all. */
  readonly contactSpread?: number;
  /** How warm it gets, K/W of its own loss; left out for not at all. */
  readonly kelvinPerWatt?: number;
  /** What bends do: Ω of contact for a thousand beyond a count, and from which on it opens now and then; left out for nothing. */
  readonly wear?: { readonly from: number; readonly perThousand: number; readonly opensFrom: number | null };
}
