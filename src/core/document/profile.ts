/** The door for machine profiles: small files of plain numbers. */
import Joi from 'joi';
import { PASSES, PROFILE_VERSION, type MachineProfile } from '../paper/machine';
import { readJson } from './json';
import { JOI_OPTIONS, oneLine } from './parameters';

const speed = Joi.number().min(0.1).max(5000).required();
const small = (most: number) => Joi.number().min(0).max(most).required();
const tool = Joi.object({ tool: Joi.number().integer().min(1).max(99).required(), speedMmS: speed }).required();

export const profileSchema = Joi.object<MachineProfile>({
  rhabdoplexMachine: Joi.valid(PROFILE_VERSION).required(),
  name: Joi.string().max(80).required(),
  bed: Joi.object({
    widthMm: Joi.number().min(20).max(5000).required(),
    heightMm: Joi.number().min(20).max(5000).required(),
    marginMm: small(100),
  }).required(),
  travelMmS: speed,
  accelerationMmS2: Joi.number().min(1).max(100_000).required(),
  liftS: small(10),
  passes: Joi.object(Object.fromEntries(PASSES.map((p) => [p, tool]))).required(),
  blade: Joi.object({
    offsetMm: small(5),
    leadInMm: small(20),
    overcutMm: small(20),
    leastRadiusMm: small(50),
    madeUpBy: Joi.valid('file', 'machine').required(),
    direction: Joi.valid('either', 'left', 'right').required(),
  }).required(),
});

export type ReadProfile =
  { readonly ok: true; readonly profile: MachineProfile } | { readonly ok: false; readonly why: string };

/** A profile from text, whatever it is. */
export function readProfile(text: string): ReadProfile {
  const json = readJson(text, 'a machine profile');
  if (!json.ok) return json;
  const { error, value } = Joi.object({ profile: profileSchema.required() }).validate(
    { profile: json.value },
    JOI_OPTIONS,
  );
  return error ? { ok: false, why: oneLine(error.message) } : { ok: true, profile: value.profile as MachineProfile };
}
