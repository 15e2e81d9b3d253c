import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { put, type Worked } from '../working/working';
import type { OpenLayer } from './design';

/**
 * Share of a bed's underside that is open to air: the product over its layers. A mesh of opening a × b
 * and wire d passes (a/(a+d))·(b/(b+d)); a cloth 1 − its shade share; supports 1 − the share they cover.
 * @returns share 0–1; 1 for no layers at all
 * @throws Unfit with a sentence for an impossible layer
 */
export function openAreaFraction(layers: readonly OpenLayer[]): Worked<number> {
  const parts = layers.map(openShare);
  const value = parts.reduce((share, part) => share * part.value, 1);
  return {
    value,
    working: [
      {
        what: say`Air share of the underside`,
        expression: parts.length ? parts.map((part) => part.expression).join(' × ') : '1',
        result: value,
        inputs: layers.map((layer) => ({
          name: layer.kind,
          value: describe(layer),
          origin: 'choice' as const,
        })),
        source: 'Open area of a square or rectangular mesh from opening and wire',
      },
    ],
  };
}

function openShare(layer: OpenLayer): { value: number; expression: string } {
  switch (layer.kind) {
    case 'mesh': {
      const [a, b] = layer.openingMm;
      const d = layer.wireMm;
      if (!(a > 0 && b > 0 && d >= 0))
        throw new Unfit(say`A mesh needs an opening above 0 and a wire of 0 or more.`);
      return {
        value: (a / (a + d)) * (b / (b + d)),
        expression: `(${put(a)} ÷ (${put(a)} + ${put(d)})) × (${put(b)} ÷ (${put(b)} + ${put(d)}))`,
      };
    }
    case 'cloth':
      return covered(layer.shadeShare);
    case 'support':
      return covered(layer.coveredShare);
  }
}

function covered(share: number) {
  if (!(share >= 0 && share <= 1)) throw new Unfit(say`A covered share lies between 0 and 1.`);
  return { value: 1 - share, expression: `(1 − ${put(share)})` };
}

function describe(layer: OpenLayer): string {
  if (layer.kind === 'mesh')
    return say`${layer.openingMm[0]} × ${layer.openingMm[1]} mm, wire ${layer.wireMm} mm`;
  return layer.kind === 'cloth'
    ? say`shades ${layer.shadeShare * 100} %`
    : say`covers ${layer.coveredShare * 100} %`;
}
