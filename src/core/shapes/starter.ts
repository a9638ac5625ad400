/**
 * Silhouettes for the observatory's cards, drawn for this program. SVG path data in mm, y down, foot on y = 0 where
 * they stand.
 * Curves are arcs and few Béziers, so that they stay clean at any size.
 */
import type { Shape } from './shape';

export interface StarterShape {
  readonly id: string;
  readonly name: string;
  readonly source: Shape;
}
const path = (id: string, name: string, d: string): StarterShape => ({
  id,
  name,
  source: { path: d, rule: 'evenodd' },
});
const shape = (id: string, name: string, source: Shape): StarterShape => ({ id, name, source });

export const STARTER_SHAPES: readonly StarterShape[] = [
  path('dome', 'Dome', 'M-34 0V-20H-38V-25H-34A34 34 0 0 1 34 -25H38V-20H34V0Z'),
  path(
    'dome-open',
    'Dome, shutter open',
    'M-34 0V-20H-38V-25H-34A34 34 0 0 1 2 -58.9L8 -30H16L13 -56.4A34 34 0 0 1 34 -25H38V-20H34V0Z',
  ),
  path(
    'observatory',
    'Observatory',
    'M-60 0V-26H-46V-30H-44A20 20 0 0 1 -4 -30H-2V-26H14V-34H12V-39H16A18 18 0 0 1 52 -39H56V-34H54V0H30V-14A6 6 0 0 0 18 -14V0Z',
  ),
  path(
    'refractor',
    'Refractor on its pier',
    'M-12 0L-6 -6L-3 -34L-9 -31L-33 -18L-36 -24L-12 -37L24 -57L23 -60L34 -66L40 -55L29 -49L28 -52L4 -38L6 -6L12 0Z',
  ),
  path('reflector', 'Reflector on a fork', 'M-18 0V-5H-6V-14H-14V-42H-8L4 -62L18 -54L6 -32L12 -28V-14H6V-5H18V0Z'),
  path(
    'tripod',
    'Telescope on a tripod',
    'M-22 0L-5 -34L-20 -28L-23 -35L22 -56L25 -49L7 -40L22 0H17L3 -32V0H-2V-30L-17 0Z',
  ),
  path(
    'radio-dish',
    'Radio dish',
    'M-14 0L-5 -20C-22 -22 -34 -32 -36 -48L-11 -38L-15 -54L-9 -57L-5 -36L20 -26C16 -22 10 -20 4 -20L12 0Z',
  ),
  path('eyepiece', 'Eyepiece', 'M-9 0V-16H-14V-34H-11V-38H-14V-44H14V-38H11V-34H14V-16H9V0Z'),
  path('crescent', 'Crescent moon', 'M14 -4A28 28 0 1 1 14 -52A23 23 0 1 0 14 -4Z'),
  path('gibbous', 'Gibbous moon', 'M-8 -4A26 26 0 1 1 -8 -52A40 40 0 0 0 -8 -4Z'),
  shape('full-moon', 'Full moon', { circle: 52 }),
  path(
    'cratered-moon',
    'Moon with craters',
    'M28 -28A28 28 0 1 1 -28 -28A28 28 0 1 1 28 -28ZM-6 -40A6 6 0 1 0 -18 -40A6 6 0 1 0 -6 -40ZM14 -32A5 5 0 1 0 4 -32A5 5 0 1 0 14 -32ZM4 -14A4 4 0 1 0 -4 -14A4 4 0 1 0 4 -14Z',
  ),
  path(
    'ringed-planet',
    'Ringed planet',
    'M-18 -34A18 18 0 0 1 16.5 -41.2L40 -50C46 -52 48 -48 43 -44L17.6 -28.5A18 18 0 0 1 -13.4 -22L-40 -12C-46 -10 -48 -14 -43 -18Z',
  ),
  path('comet', 'Comet', 'M-44 -2L-12 -36A15 15 0 1 1 8 -17L-20 -4L-6 -18L-34 -2L-18 -20Z'),
  path(
    'meteor',
    'Shooting star',
    'M22 -58L25.5 -48.5L36 -48L27.8 -41.5L30.6 -31.4L22 -37.2L-34 -4L14 -42.6L8 -48L18.5 -48.5Z',
  ),
  path('spark', 'Four-pointed star', 'M0 -60Q4 -34 30 -30Q4 -26 0 0Q-4 -26 -30 -30Q-4 -34 0 -60Z'),
  shape('star', 'Star', { star: { points: 5, outer: 56, inner: 23 } }),
  shape('north-star', 'Star of eight', { star: { points: 8, outer: 58, inner: 26 } }),
  path(
    'sun',
    'Sun',
    'M0 -58L6 -46L17 -54L17.5 -40.5L31 -41L23.5 -29.5L35 -24L23 -18L29 -6.5L15.5 -8L14 5L3.5 -3.5L-5.5 6L-9 -7L-22 -2L-20 -15L-33 -18L-23.5 -27L-33 -37L-19.5 -38.5L-22.5 -51.5L-10.5 -45.5Z',
  ),
  path(
    'corona',
    'Eclipse',
    'M30 -30A30 30 0 1 1 -30 -30A30 30 0 1 1 30 -30ZM21 -32A23 23 0 1 0 -25 -32A23 23 0 1 0 21 -32Z',
  ),
  path(
    'orrery',
    'Orrery',
    'M-16 0V-4H-3V-26H-30A5 5 0 1 1 -30 -30H-8A9 9 0 0 1 -3 -38V-44H-14A4 4 0 1 1 -14 -48H3V-38A9 9 0 0 1 8 -30H22A7 7 0 1 1 22 -26H3V-4H16V0Z',
  ),
  shape('armillary', 'Ring globe', {
    path: 'M-14 0V-4H-3V-11A24 24 0 1 1 3 -11V-4H14V0ZM19 -34A19 19 0 1 0 -19 -34A19 19 0 1 0 19 -34ZM-16 -46L20 -26L17 -22L-19 -42Z',
    rule: 'nonzero',
  }),
  path(
    'star-chart',
    'Star chart',
    'M30 -30A30 30 0 1 1 -30 -30A30 30 0 1 1 30 -30ZM-8 -42L-6.8 -38.8L-3.4 -38.6L-6 -36.5L-5.1 -33.2L-8 -35.1L-10.9 -33.2L-10 -36.5L-12.6 -38.6L-9.2 -38.8ZM12 -30A2.5 2.5 0 1 0 7 -30A2.5 2.5 0 1 0 12 -30ZM-2 -16A2.5 2.5 0 1 0 -7 -16A2.5 2.5 0 1 0 -2 -16ZM18 -14A2 2 0 1 0 14 -14A2 2 0 1 0 18 -14Z',
  ),
  path(
    'ridge-line',
    'Ridge line',
    'M-80 0V-18L-62 -34L-50 -26L-32 -46L-20 -36L-8 -44L10 -24L26 -38L40 -30L56 -42L70 -22L80 -28V0Z',
  ),
  path('hill', 'Hill', 'M-70 0C-50 -4 -40 -30 -12 -34C16 -38 34 -10 70 -4V0Z'),
  path('pine', 'Pine', 'M-4 0V-9H-20L-9 -24H-15L-6 -38H-10L0 -58L10 -38H6L15 -24H9L20 -9H4V0Z'),
  path(
    'wood',
    'Edge of the wood',
    'M-54 0V-14L-48 -30L-42 -16L-36 -40L-28 -18L-22 -28L-15 -15L-6 -46L4 -18L10 -32L17 -16L26 -42L34 -18L40 -26L46 -14L54 -34V0Z',
  ),
  path(
    'gate',
    'Gate',
    'M-40 0V-46H-43L-38 -54L-33 -46H-36V-38H36V-46H33L38 -54L43 -46H40V0H34V-8H-34V0ZM-34 -14H-4V-32H-34ZM4 -14H34V-32H4Z',
  ),
  path('lamp', 'Lamp', 'M-10 0V-4H-3V-40H-9L-12 -54H-4V-58H4V-54H12L9 -40H3V-4H10V0Z'),
  path(
    'weather-vane',
    'Weather vane',
    'M-12 0L-2 -8V-34H-28V-30L-38 -36.5L-28 -43V-39H-2V-52A4 4 0 1 1 2 -52V-39H24L34 -46V-27L24 -34H2V-8L12 0Z',
  ),
  path('signpost', 'Signpost', 'M-4 0V-22H-30V-34H-4V-38H-8V-50H28L36 -44L28 -38H4V-34H8V-22H4V0Z'),
  path('cabin', 'Night cabin', 'M-36 0V-24H-42L-10 -50V-58H0V-52L4 -56L42 -24H36V0H8V-16H-6V0ZM14 -12H28V-22H14Z'),
  path('steps', 'Steps', 'M-40 0V-10H-24V-20H-8V-30H8V-40H24V-50H40V0Z'),
  path('rocket', 'Sounding rocket', 'M-16 0V-14L-8 -24V-44Q-6 -58 0 -64Q6 -58 8 -44V-24L16 -14V0L8 -7H-8Z'),
  path(
    'satellite',
    'Satellite',
    'M-44 -20V-40H-16V-34H-8V-40H-3V-50A6 6 0 1 1 3 -50V-40H8V-34H16V-40H44V-20H16V-26H8V-14H-8V-26H-16V-20Z',
  ),
  path(
    'hourglass',
    'Night clock',
    'M-20 0V-6H-16C-16 -20 -4 -24 -4 -30C-4 -36 -16 -40 -16 -54H-20V-60H20V-54H16C16 -40 4 -36 4 -30C4 -24 16 -20 16 -6H20V0Z',
  ),
  shape('cloud', 'Cloud', { cloud: { width: 70, height: 40, bumps: 9 } }),
  shape('arch', 'Archway', { arch: { width: 44, height: 60 } }),
];
