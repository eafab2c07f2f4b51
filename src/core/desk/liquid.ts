/** Desk lines of liquid in a closed section. */
import { PIPE_TABLES, pipeWall, WALLS, type WallMaterial } from '@/core/installation/pipes';
import { roundVolume } from '@/core/installation/section';
import {
  decayFactors,
  liquidFall,
  liquidPerKelvin,
  stiffness,
  stretchedPressure,
  stretchFadesAt,
  trappedAir,
} from '@/core/medium/liquid';
import { headPressure, waterDensity, waterExpansion } from '@/core/medium/water';
import { fromKelvin } from '@/core/quantity/unit';
import { barometer, input, type DeskFormula } from './types';

const SOURCE = 'Elastic water and pipe wall';
const materials = {
  key: 'material',
  name: 'pipe wall',
  options: Object.entries(WALLS).map(([key, w]) => ({ key, label: `${key}, ${w.note}` })),
  value: 'copper',
};
/** A pipe as a link carries it: table and size without signs that a link would mangle. */
const pipeKey = (table: string, size: string) => `${table}/${size.replace(/[^0-9a-z½¾¼.]+/gi, '-')}`;
const PIPES = PIPE_TABLES.flatMap((t) =>
  t.sizes.map((s) => ({
    key: pipeKey(t.key, s.key),
    table: t.key,
    size: s.key,
    label: `${t.title}: ${s.key}`,
  })),
);
const stiff = () => input('C', 'C, stiffness: water per pressure', 'ml/bar', 'positive', '5');

export const LIQUID_LINES: readonly DeskFormula[] = [
  {
    id: 'pipe-volume',
    group: 'liquid',
    title: 'Volume of a pipe',
    answers: 'What a length of pipe holds, from its bore.',
    formula: 'V = π/4 × bore² × length',
    source: 'Geometry; bores by the pipe tables of the place page',
    inputs: [
      input('bore', 'bore, inside diameter', 'mm', 'positive', '26.2'),
      input('length', 'length', 'm', 'positive', '10'),
    ],
    outputs: [
      { key: 'V', name: 'volume', unit: 'l' },
      { key: 'perMetre', name: 'per metre', unit: 'l/m' },
    ],
    work: (n) => ({
      V: roundVolume(n.bore!, n.length!),
      perMetre: roundVolume(n.bore!, 1),
    }),
  },
  {
    id: 'stroke-volume',
    group: 'liquid',
    title: 'Volume from pump strokes',
    answers: 'What was pumped in, or what a section holds when it was filled by the pump.',
    formula: 'V = strokes × stroke volume',
    source: 'Stroke volume of the pump as measured with a graduated vessel; needs of the trade N020, N094',
    inputs: [
      input('n', 'strokes', '1', 'count', '32'),
      input('stroke', 'volume of one stroke', 'ml', 'positive', '45'),
    ],
    outputs: [{ key: 'V', name: 'volume', unit: 'l' }],
    work: (n) => ({ V: n.n! * n.stroke! }),
  },
  {
    id: 'stiffness',
    group: 'liquid',
    title: 'Stiffness of a full section',
    answers: 'How much water a bar takes: the wall, the water and any gas in it.',
    formula: 'C = V (1/K + D/(E e)) + V_air / P',
    source: SOURCE,
    note: 'Gas in the section dominates: five litres of vessel gas make a house a hundred times softer',
    inputs: [
      input('V', 'V, volume of the section', 'l', 'positive', '200'),
      input('D', 'D, outside diameter', 'mm', 'positive', '22'),
      input('e', 'e, wall', 'mm', 'positive', '1'),
      input('air', 'V_air, gas in the section at test pressure', 'l', 'not-negative', '0'),
      input('p', 'p, test pressure', 'bar', 'gauge', '6'),
      barometer(),
    ],
    choices: [materials],
    outputs: [
      { key: 'C', name: 'stiffness, water per pressure', unit: 'ml/bar' },
      { key: 'ml', name: 'one millilitre of loss shows as', unit: 'bar' },
      { key: 'share', name: 'share of the gas', unit: '%' },
    ],
    work: (n, c) => {
      const wall = {
        volume: n.V!,
        diameter: n.D!,
        wall: n.e!,
        modulus: WALLS[c.material as WallMaterial].modulus,
      };
      const all = stiffness([wall], n.air, n.p! + n.atm!);
      return { C: all, ml: 1e-6 / all, share: 1 - stiffness([wall]) / all };
    },
  },
  {
    id: 'pipe-stiffness',
    group: 'liquid',
    title: 'Stiffness by pipe table',
    answers: 'Volume, stiffness and warmth of a length of listed pipe, full of water.',
    formula: 'C = V (1/K + D/(E e));  dp/dT = V (β(T) − 3α) / C',
    source: SOURCE,
    inputs: [
      input('length', 'length', 'm', 'positive', '50'),
      input('T', 'T, temperature', 'C', 'temperature', '15'),
    ],
    choices: [
      {
        key: 'pipe',
        name: 'pipe',
        options: PIPES.map(({ key, label }) => ({ key, label })),
        value: 'copper-standard/22-1.0',
      },
    ],
    outputs: [
      { key: 'V', name: 'volume', unit: 'l' },
      { key: 'C', name: 'stiffness, water per pressure', unit: 'ml/bar' },
      { key: 'ml', name: 'one millilitre of loss shows as', unit: 'bar' },
      { key: 'perKelvin', name: 'one kelvin shows as', unit: 'bar/K' },
    ],
    work: (n, c) => {
      const { table, size } = PIPES.find((p) => p.key === c.pipe)!;
      const w = pipeWall(table, size);
      const volume = roundVolume(w.bore, n.length!);
      const all = stiffness([{ volume, ...w }]);
      return {
        V: volume,
        C: all,
        ml: 1e-6 / all,
        perKelvin: liquidPerKelvin(volume, fromKelvin(n.T!, 'C'), w.alpha, all),
      };
    },
  },
  {
    id: 'liquid-fall',
    group: 'liquid',
    title: 'Pressure fall of a water leak',
    answers: 'What a leak of this rate does to a full section.',
    formula: 'Δp = −Q Δt / C',
    source: SOURCE,
    inputs: [
      stiff(),
      input('Q', 'Q, leak rate', 'l/h', 'not-negative', '0.1'),
      input('t', 't, time', 'min', 'positive', '60'),
    ],
    outputs: [{ key: 'dp', name: 'change of pressure', unit: 'bar' }],
    work: (n) => ({ dp: liquidFall(n.Q!, n.t!, n.C!) }),
  },
  {
    id: 'loss-from-fall',
    group: 'liquid',
    title: 'Water lost from a fall',
    answers: 'What left a full section, from the fall of its pressure.',
    formula: 'V_loss = C × Δp;  Q = V_loss / t',
    source: SOURCE,
    inputs: [
      stiff(),
      input('dp', 'Δp, fall', 'bar', 'not-negative', '0.2'),
      input('t', 't, time', 'min', 'positive', '60'),
    ],
    outputs: [
      { key: 'V', name: 'water lost', unit: 'ml' },
      { key: 'Q', name: 'loss rate', unit: 'l/h' },
    ],
    work: (n) => ({ V: n.C! * n.dp!, Q: (n.C! * n.dp!) / n.t! }),
  },
  {
    id: 'liquid-temperature',
    group: 'liquid',
    title: 'Temperature and a full section',
    answers: 'What a kelvin does to a full section; for PE and PE-X warming lowers the pressure.',
    formula: 'dp/dT = V (β(T) − 3α) / C',
    source: 'Density of water by Kell (1975)',
    inputs: [
      input('V', 'V, volume of the section', 'l', 'positive', '200'),
      stiff(),
      input('T', 'T, temperature of the water', 'C', 'temperature', '15'),
      input('dT', 'ΔT, change', 'K', 'difference', '1'),
    ],
    choices: [materials],
    outputs: [
      { key: 'change', name: 'change of pressure', unit: 'bar' },
      { key: 'perKelvin', name: 'per kelvin', unit: 'bar/K' },
      { key: 'beta', name: 'β, expansion of the water', unit: '1/K' },
    ],
    work: (n, c) => {
      const celsius = fromKelvin(n.T!, 'C');
      const perKelvin = liquidPerKelvin(n.V!, celsius, WALLS[c.material as WallMaterial].alpha, n.C!);
      return { change: perKelvin * n.dT!, perKelvin, beta: waterExpansion(celsius) };
    },
  },
  {
    id: 'trapped-air',
    group: 'liquid',
    title: 'Trapped air from the first strokes',
    answers: 'How much air is still in a full section, from what the pump had to add.',
    formula: 'V_air = (ΔV − C (p₂ − p₁)) / (1 − P₁/P₂)',
    source: 'Boyle against the stiffness without air',
    inputs: [
      input('dV', 'ΔV, water added', 'ml', 'positive', '120'),
      input('p1', 'p₁, before', 'bar', 'gauge', '1'),
      input('p2', 'p₂, after', 'bar', 'gauge', '3'),
      stiff(),
      input('V', 'V, volume of the section', 'l', 'positive', '200'),
      barometer(),
    ],
    outputs: [
      { key: 'air', name: 'air at p₁', unit: 'ml' },
      { key: 'atmospheric', name: 'air at atmospheric pressure', unit: 'l' },
      { key: 'share', name: 'share of the volume, at p₁', unit: '%' },
      { key: 'at2', name: 'air at p₂', unit: 'ml' },
    ],
    work: (n) => {
      const t = trappedAir(n.dV!, n.p1! + n.atm!, n.p2! + n.atm!, n.C!, n.atm!);
      return { air: t.before, atmospheric: t.atmospheric, share: t.before / n.V!, at2: t.after };
    },
  },
  {
    id: 'stretch',
    group: 'liquid',
    title: 'Stretching plastic pipe',
    answers: 'How far stretch lets the pressure fall, and when a leak begins to show through it.',
    formula: 'p(t) = p0 − a ln(1 + t/t_c);  a/(t_c + t) = Q/C',
    source: 'Creep of plastic pipe',
    inputs: [
      input('p0', 'p0, start', 'bar', 'gauge', '9'),
      input('a', 'a, stretch', 'bar', 'not-negative', '0.35'),
      input('tc', 't_c, stretch time', 'min', 'positive', '5'),
      input('t', 't, time', 'min', 'not-negative', '30'),
      input('Q', 'Q, leak rate', 'l/h', 'positive', '0.1'),
      stiff(),
    ],
    outputs: [
      { key: 'p', name: 'pressure by stretch alone', unit: 'bar' },
      { key: 'fades', name: 'the leak is the steeper one from', unit: 'min' },
    ],
    work: (n) => ({
      p: stretchedPressure(n.p0!, n.a!, n.tc!, n.t!),
      fades: stretchFadesAt(n.a!, n.tc!, n.Q! / n.C!),
    }),
  },
  {
    id: 'decay-loss',
    group: 'liquid',
    title: 'Decay loss at full pressure',
    answers: 'A loss measured while the pressure fell, carried to the full test pressure.',
    formula: 'laminar × p0 ln(p0/p1)/(p0−p1);  orifice × 2√p0/(√p0+√p1)',
    source: 'Mean of the leak law over the fall',
    inputs: [
      input('p0', 'p0, start', 'bar', 'gauge', '10'),
      input('p1', 'p1, end', 'bar', 'gauge', '8'),
      input('V', 'water drained back to p1', 'l', 'positive', '2'),
      input('t', 't, time of the fall', 'min', 'positive', '120'),
    ],
    outputs: [
      { key: 'mean', name: 'loss as measured', unit: 'l/h' },
      { key: 'laminar', name: 'at p0, laminar', unit: 'l/h' },
      { key: 'orifice', name: 'at p0, orifice', unit: 'l/h' },
    ],
    work: (n) => {
      const f = decayFactors(n.p0!, n.p1!);
      const mean = n.V! / n.t!;
      return { mean, laminar: mean * f.laminar, orifice: mean * f.orifice };
    },
  },
  {
    id: 'head',
    group: 'liquid',
    title: 'Pressure of a column of water',
    answers: 'What a height of water adds at its foot.',
    formula: 'p = 9.80665 kPa per metre',
    source: 'Weight of water at 1000 kg/m³',
    inputs: [input('h', 'h, height', 'm', 'any', '3')],
    outputs: [{ key: 'p', name: 'pressure', unit: 'mbar' }],
    work: (n) => ({ p: headPressure(n.h!) }),
  },
  {
    id: 'water-density',
    group: 'liquid',
    title: 'Water by temperature',
    answers: 'Density and expansion of water; below 4 °C it shrinks when warmed.',
    formula: 'ρ(T) after Kell;  β = −(1/ρ) dρ/dT',
    source: 'G. S. Kell, J. Chem. Eng. Data 20 (1975) 97',
    inputs: [input('T', 'T, temperature', 'C', 'temperature', '20')],
    outputs: [
      { key: 'rho', name: 'mass of one litre', unit: 'kg' },
      { key: 'beta', name: 'β, expansion', unit: '1/K' },
    ],
    work: (n) => ({
      rho: waterDensity(fromKelvin(n.T!, 'C')) / 1000,
      beta: waterExpansion(fromKelvin(n.T!, 'C')),
    }),
  },
];
