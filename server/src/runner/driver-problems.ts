// What a driver says when a rig cannot be set as a step wants it, or a load not be trusted.

/** Why a step cannot be set up, in a sentence for the person at the bench. */
export class SettingProblem extends Error {}

/** A port offers nothing at all. */
export class NoOffers extends SettingProblem {}

/** Loads were switched off meanwhile: what wanted to switch one on is too late. */
export class SwitchedOff extends Error {}

/** A load was told to go off and has not said that it is: in the sentence for the person at the bench. */
export class NobodyKnows extends Error {}
