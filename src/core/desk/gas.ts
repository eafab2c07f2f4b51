/** Desk lines of gas in a closed section. Every one calls the function that the bench uses. */
import { convertRate } from '@/core/adequacy/rate';
import { energyLevel, fallingMass, gasEnergy, liquidEnergy } from '@/core/medium/energy';
import { leakRate, pressurePerKelvin } from '@/core/medium/gas';
import {
  balancePressure,
  drawnVolume,
  laminarConductance,
  laminarRate,
  leakedPressure,
  orificeRateAt,
  OTHER_GAS,
  twoSlopes,
  type OtherGas,
} from '@/core/medium/leak';
import { WATER_BULK_MODULUS } from '@/core/medium/water';
import { convert } from '@/core/quantity/unit';
import { barometer, DeskError, input, type DeskFormula } from './types';

const volume = () => input('V', 'V, volume of the section', 'l', 'positive', '20');
const time = (value = '2') => input('t', 't, time', 'min', 'positive', value);
const lawChoice = {
  key: 'law',
  name: 'law of the leak',
  options: [
    { key: 'laminar', label: 'laminar: a pore, a thread' },
    { key: 'orifice', label: 'orifice: a hole' },
  ],
  value: 'laminar',
};

export const GAS_LINES: readonly DeskFormula[] = [
  {
    id: 'leak-rate',
    group: 'gas',
    title: 'Leak rate from a fall',
    answers: 'How much gas leaves, from volume, fall and time.',
    formula: 'Q = (V / P_atm) × (P0 × T1/T0 − P1) / t',
    source: 'Ideal gas in a closed section (Boyle and Charles)',
    note: 'Without temperatures the ratio is 1; without a second barometer reading both ends have the same',
    inputs: [
      volume(),
      input('p0', 'p0, start', 'mbar', 'gauge', '20.5'),
      input('p1', 'p1, end', 'mbar', 'gauge', '20'),
      time(),
      input('T0', 'T0, temperature at start', 'C', 'temperature', ''),
      input('T1', 'T1, temperature at end', 'C', 'temperature', ''),
      barometer(),
      input('atm1', 'P_atm at the end', 'mbar', 'absolute', ''),
    ],
    outputs: [{ key: 'Q', name: 'leak rate at atmospheric conditions', unit: 'l/h' }],
    work: (n) => {
      if ((n.T0 === undefined) !== (n.T1 === undefined))
        throw new DeskError(
          n.T0 === undefined ? 'T0' : 'T1',
          'Both temperatures are needed, or neither: one alone says nothing.',
        );
      const q = leakRate(n.V!, n.p0!, n.p1!, n.t!, {
        ...(n.T0 !== undefined ? { temperature: [n.T0, n.T1!] as const } : {}),
        atmosphere: [n.atm!, n.atm1 ?? n.atm!],
      });
      return { Q: convert(q.value, q.unit, 'm3/s') };
    },
  },
  {
    id: 'laminar-leak',
    group: 'gas',
    title: 'Fall of a laminar leak',
    answers: 'What a leak of this rate does to the pressure over a time.',
    formula: 'Q = k (P² − P_atm²) / (2 P_atm);  p / (p + 2 P_atm) falls as exp(−k P_atm t / V)',
    source: 'Laminar flow through a pore',
    inputs: [
      volume(),
      input('p0', 'p0, start', 'mbar', 'gauge', '20'),
      input('Q', 'Q, leak rate at p0', 'l/h', 'not-negative', '1'),
      time('10'),
      barometer(),
    ],
    outputs: [
      { key: 'p', name: 'pressure after the time', unit: 'mbar' },
      { key: 'fall', name: 'fall', unit: 'mbar' },
      { key: 'slope', name: 'slope at the start', unit: 'mbar/min' },
    ],
    work: (n) => {
      const k = laminarConductance(n.Q!, n.p0!, n.atm);
      const p = leakedPressure(n.p0!, k, n.V!, n.t!, n.atm);
      return { p, fall: n.p0! - p, slope: -(laminarRate(k, n.p0!, n.atm) * n.atm!) / n.V! };
    },
  },
  {
    id: 'rate-at-pressure',
    group: 'gas',
    title: 'Leak rate at another pressure',
    answers: 'The same leak at working pressure, from the rate at test pressure.',
    formula:
      'laminar: Q₂ = Q₁ (P₂² − P_atm²)/(P₁² − P_atm²);  orifice: Q₂ = Q₁ √(p₂/p₁), choked above 0.9 bar',
    source: 'Laws of small leaks',
    note: 'Above 100 mbar the law matters: unknown, take both as a range',
    inputs: [
      input('Q', 'Q₁, leak rate at p₁', 'l/h', 'not-negative', '1'),
      input('p1', 'p₁, test pressure', 'mbar', 'positive', '150'),
      input('p2', 'p₂, other pressure', 'mbar', 'not-negative', '21'),
    ],
    outputs: [
      { key: 'laminar', name: 'rate at p₂, laminar', unit: 'l/h' },
      { key: 'orifice', name: 'rate at p₂, orifice', unit: 'l/h' },
    ],
    work: (n) => ({
      laminar: convertRate(n.Q!, n.p1!, n.p2!, 'laminar'),
      orifice: orificeRateAt(n.Q!, n.p1!, n.p2!),
    }),
  },
  {
    id: 'other-gas',
    group: 'gas',
    title: 'Another gas through the same leak',
    answers: 'What an air leak means once the fuel gas is on.',
    formula: 'Q_gas = Q_air × factor (natural gas 1.65 laminar, 1.29 orifice; propane 2.25, 0.80)',
    source: 'Ratios of viscosity and of density',
    inputs: [input('Q', 'Q, air leak rate', 'l/h', 'not-negative', '1')],
    choices: [
      {
        key: 'gas',
        name: 'gas',
        options: Object.entries(OTHER_GAS).map(([key, g]) => ({ key, label: g.name })),
        value: 'natural-gas',
      },
      lawChoice,
    ],
    outputs: [{ key: 'gas', name: 'leak rate of the gas', unit: 'l/h' }],
    work: (n, c) => ({
      gas: n.Q! * OTHER_GAS[c.gas as OtherGas][c.law as 'laminar' | 'orifice'],
    }),
  },
  {
    id: 'gas-temperature',
    group: 'gas',
    title: 'Temperature and a gas section',
    answers: 'How far the pressure moves when the gas warms or cools.',
    formula: 'dP/dT = P / T;  ΔP = (P/T) × ΔT',
    source: 'Gay-Lussac: the pressure of a closed gas follows its absolute temperature',
    note: 'One degree matters more than most leaks',
    inputs: [
      input('p', 'p, gauge pressure', 'mbar', 'gauge', '20'),
      input('T', 'T, temperature', 'C', 'temperature', '20'),
      input('dT', 'ΔT, change', 'K', 'difference', '1'),
      barometer(),
    ],
    outputs: [
      { key: 'change', name: 'change of pressure', unit: 'mbar' },
      { key: 'perKelvin', name: 'per kelvin', unit: 'mbar/K' },
    ],
    work: (n) => {
      const perKelvin = pressurePerKelvin(n.p!, n.T!, n.atm);
      return { change: perKelvin * n.dT!, perKelvin };
    },
  },
  {
    id: 'two-slopes',
    group: 'gas',
    title: 'Let-by and leak from two slopes',
    answers: 'Whether a passing valve hides a leak, from the slopes at two pressures.',
    formula: '(V/P_atm) dp/dt = k_in (s_s − s) − k_out s,  s = (P² − P_atm²) / (2 P_atm)',
    source: 'Balance of what comes in and what goes out',
    note: 'Advice only, and only while the temperature drifts by less than 0.02 K/min',
    inputs: [
      volume(),
      input('ps', 'p_s, supply before the valve', 'mbar', 'positive', '21'),
      input('pa', 'first pressure', 'mbar', 'not-negative', '8'),
      input('sa', 'first slope (rise +)', 'mbar/min', 'any', '0.03'),
      input('pb', 'second pressure', 'mbar', 'not-negative', '16'),
      input('sb', 'second slope', 'mbar/min', 'any', '-0.09'),
      barometer(),
    ],
    outputs: [
      { key: 'in', name: 'let-by into a section at zero', unit: 'l/h' },
      { key: 'out', name: 'leak at supply pressure', unit: 'l/h' },
      { key: 'balance', name: 'pressure at which both cancel', unit: 'mbar' },
      { key: 'says', name: 'what it says' },
    ],
    work: (n) => {
      const t = twoSlopes(
        n.V!,
        n.ps!,
        { pressure: n.pa!, slope: n.sa! },
        { pressure: n.pb!, slope: n.sb! },
        n.atm,
      );
      const sound = t.letBy >= 0 && t.leak >= 0;
      return {
        in: laminarRate(t.letBy, n.ps!, n.atm),
        out: laminarRate(t.leak, n.ps!, n.atm),
        balance: t.balance,
        says: !sound
          ? 'One of the two comes out below zero: temperature, or a slope misread. Repeat.'
          : t.letBy > 0 && t.leak > 0
            ? 'Both act: the valve passes and the section leaks.'
            : t.leak > 0
              ? 'A leak alone.'
              : t.letBy > 0
                ? 'Let-by alone.'
                : 'Neither shows.',
      };
    },
  },
  {
    id: 'balance-pressure',
    group: 'gas',
    title: 'Where let-by and leak cancel',
    answers: 'The pressure at which the gauge would stand still although both act.',
    formula: 's = k_in s_s / (k_in + k_out),  s = (P² − P_atm²) / (2 P_atm)',
    source: 'Balance of what comes in and what goes out',
    inputs: [
      input('ps', 'p_s, supply before the valve', 'mbar', 'positive', '21'),
      input('in', 'let-by into a section at zero', 'l/h', 'not-negative', '1'),
      input('out', 'leak at supply pressure', 'l/h', 'not-negative', '1'),
    ],
    outputs: [{ key: 'p', name: 'balance pressure', unit: 'mbar' }],
    work: (n) => ({ p: balancePressure(n.in! / n.ps!, n.out! / n.ps!, n.ps!) }),
  },
  {
    id: 'drawn-volume',
    group: 'gas',
    title: 'Volume from a metered draw',
    answers: 'How large a section is, from the gas drawn with the supply shut.',
    formula: 'V = V_drawn × P_atm / (p_before − p_after)',
    source: 'Boyle: pressure times volume of a gas at constant temperature',
    inputs: [
      input('drawn', 'V_drawn, by the meter', 'l', 'positive', '0.1'),
      input('before', 'p before', 'mbar', 'gauge', '21'),
      input('after', 'p after', 'mbar', 'gauge', '17'),
      barometer(),
    ],
    outputs: [{ key: 'V', name: 'volume of the section', unit: 'l' }],
    work: (n) => ({ V: drawnVolume(n.drawn!, n.before!, n.after!, n.atm) }),
  },
  {
    id: 'stored-energy',
    group: 'gas',
    title: 'Stored energy, gas beside water',
    answers: 'What would be set free if a plug let go.',
    formula: 'gas: E = P V/(γ−1) × (1 − (P_atm/P)^((γ−1)/γ)), γ 1.4;  water: E = p² C / 2',
    source: 'Adiabatic expansion; elastic energy',
    note: 'Water counted in a stiff pipe, by its own compression alone (K 2.2 GPa)',
    inputs: [
      input('V', 'V, volume', 'l', 'positive', '50'),
      input('p', 'p, gauge pressure', 'bar', 'not-negative', '3'),
      input('C', 'C, stiffness when full of water', 'ml/bar', 'positive', '', 'empty: a rigid pipe'),
    ],
    outputs: [
      { key: 'gas', name: 'energy with gas', unit: 'J' },
      { key: 'water', name: 'energy with water', unit: 'J' },
      { key: 'mass', name: 'as much as this mass falling one metre (gas)', unit: 'kg' },
      { key: 'level', name: 'care' },
    ],
    work: (n) => {
      const gas = gasEnergy(n.V!, n.p!);
      return {
        gas,
        water: liquidEnergy(n.p!, n.C ?? n.V! / WATER_BULK_MODULUS),
        mass: fallingMass(gas),
        level: `${energyLevel(gas).words}. ${energyLevel(gas).exclusion}`,
      };
    },
  },
];
