/** The posed model as binary glTF 2.0: metres, y up, one node per piece, paper with thickness and its two colours. */
import { Document, WebIO, type Material } from '@gltf-transform/core';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { stockOf, type Design } from '../document/design';
import { WRITTEN_BY } from '../version';
import { posedSlab } from './solid';

const METRE_PER_MM = 0.001;

export async function toGlb(design: Design, assembly: Assembly, pose: Pose): Promise<Uint8Array> {
  const doc = new Document();
  doc.getRoot().getAsset().generator = WRITTEN_BY;
  const buffer = doc.createBuffer();
  const scene = doc.createScene(design.name);
  const materials = new Map<string, Material>();
  const material = (hex: string): Material => {
    const known = materials.get(hex);
    if (known) return known;
    const made = doc
      .createMaterial(hex)
      .setBaseColorFactor([...linear(hex), 1])
      .setRoughnessFactor(0.95)
      .setMetallicFactor(0);
    materials.set(hex, made);
    return made;
  };
  for (const piece of assembly.pieces) {
    const stock = stockOf(design, piece.stock);
    const mesh = doc.createMesh(piece.id);
    assembly.facets.forEach((f, i) => {
      if (f.piece !== piece.id) return;
      const slab = posedSlab(assembly.facets, pose, i, stock.caliperMm);
      for (const [corners, colour] of [
        [slab.inside, stock.insideColour],
        [slab.outside, stock.outsideColour],
        [slab.edge, stock.outsideColour],
      ] as const) {
        if (corners.length === 0) continue;
        const { positions, normals } = upright(corners);
        mesh.addPrimitive(
          doc
            .createPrimitive()
            .setMaterial(material(colour))
            .setAttribute('POSITION', doc.createAccessor().setType('VEC3').setArray(positions).setBuffer(buffer))
            .setAttribute('NORMAL', doc.createAccessor().setType('VEC3').setArray(normals).setBuffer(buffer)),
        );
      }
    });
    if (mesh.listPrimitives().length > 0) scene.addChild(doc.createNode(piece.id).setMesh(mesh));
  }
  return new WebIO().writeBinary(doc);
}

/**
 * World axes (z up, mm) to glTF axes (y up, m), with a normal per triangle; triangles of no area get an up normal.
 */
function upright(corners: Float32Array): { positions: Float32Array; normals: Float32Array } {
  const positions = new Float32Array(corners.length);
  const normals = new Float32Array(corners.length);
  for (let k = 0; k < corners.length; k += 3) {
    positions[k] = corners[k] * METRE_PER_MM;
    positions[k + 1] = corners[k + 2] * METRE_PER_MM;
    positions[k + 2] = -corners[k + 1] * METRE_PER_MM;
  }
  for (let k = 0; k < corners.length; k += 9) {
    const [ux, uy, uz] = [0, 1, 2].map((r) => positions[k + 3 + r] - positions[k + r]);
    const [vx, vy, vz] = [0, 1, 2].map((r) => positions[k + 6 + r] - positions[k + r]);
    const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const length = Math.hypot(...n);
    for (let c = 0; c < 9; c += 3)
      for (let r = 0; r < 3; r++) normals[k + c + r] = length > 0 ? n[r] / length : r === 1 ? 1 : 0;
  }
  return { positions, normals };
}

/** sRGB hex to linear light, as glTF wants it (IEC 61966-2-1). */
function linear(hex: string): [number, number, number] {
  const part = (k: number): number => {
    const c = parseInt(hex.slice(k, k + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  };
  return [part(1), part(3), part(5)];
}
