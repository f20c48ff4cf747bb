/** Instruments here are struck as velocity to this power: the application's own curve, heard and measured alike. */
const CURVE = 1.3;

/** Amplitude of a strike, 0–1, from its velocity. */
export const strengthOf = (velocity: number): number => (velocity / 127) ** CURVE;

/** The velocity that has an amplitude. */
export const velocityOf = (strength: number): number => 127 * strength ** (1 / CURVE);

/** Amplitude as decibels: half of it is −6.02 dB. */
export const decibels = (amplitude: number): number => 20 * Math.log10(amplitude);
