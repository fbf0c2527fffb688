import type { CautionId } from '../safety';

/** A question that must be answered before a step that cannot be undone. */
export interface Gate {
  readonly id: string;
  readonly question: string;
  /** What to do when the answer is no. */
  readonly otherwise: string;
  /** Only a measurement on the Bench passes it; it is not ticked by hand. */
  readonly measured?: boolean;
}

/** One step of a build plan. */
export interface BuildStep {
  readonly id: string;
  readonly text: string;
  readonly cautions?: readonly CautionId[];
  /** A check made at this step; later steps can wait for it. */
  readonly gate?: Gate;
  /** Gates that must be passed first. */
  readonly waitsFor: readonly string[];
  /** True where a mistake cannot be taken back (a crimp, a cut, a seal). */
  readonly final: boolean;
}

/** A step and whether it may be done now. */
export interface StepState {
  readonly step: BuildStep;
  readonly open: boolean;
  readonly done: boolean;
  /** Questions still unanswered, when closed. */
  readonly waitingFor: readonly Gate[];
}

/** Which steps may be done, given the gates passed and steps ticked. A ticked step whose gate was taken back is open again. */
export function stepStates(
  steps: readonly BuildStep[],
  passedGates: ReadonlySet<string>,
  doneSteps: ReadonlySet<string>,
): readonly StepState[] {
  const gates = new Map(steps.flatMap((step) => (step.gate ? [[step.gate.id, step.gate] as const] : [])));
  return steps.map((step) => {
    const waitingFor = step.waitsFor.filter((id) => !passedGates.has(id)).flatMap((id) => gates.get(id) ?? []);
    const open = waitingFor.length === 0;
    return { step, open, done: open && doneSteps.has(step.id), waitingFor };
  });
}

const step = (
  id: string,
  text: string,
  more: { cautions?: readonly CautionId[]; gate?: Gate; waitsFor?: readonly string[]; final?: boolean } = {},
): BuildStep => ({ id, text, waitsFor: [], final: false, ...more });

/** Asked before anything is driven into the ground. */
const LOCATE = step(
  'locate',
  'Have buried cables and pipes located where stakes, staples, radials or a pole will go.',
  {
    cautions: ['digging'],
    gate: {
      id: 'buried-located',
      question: 'Are buried cables and pipes marked, or known not to be there?',
      otherwise: 'Do not dig and drive nothing in. The services that run them locate them.',
    },
  },
);

/** The feed of every antenna that is cut from wire: nothing is crimped before the collar is on, and the joint is measured before it is sealed. */
const FEED_CONNECTION: readonly BuildStep[] = [
  step('collar', 'Slide collar, sleeve and heat-shrink onto the cable now; they do not go on later.', {
    gate: {
      id: 'collar-on',
      question: 'Are collar, sleeve and heat-shrink on the cable, the right way round?',
      otherwise: 'Slide them on before anything is crimped.',
    },
  }),
  step('crimp', 'Crimp or solder the feed connection.', {
    cautions: ['solder', 'gas'],
    waitsFor: ['collar-on'],
    final: true,
  }),
  step('continuity', 'Meter: centre of the plug to its wire, then centre to shield.', {
    gate: {
      id: 'continuity',
      question: 'Continuity yes, short no?',
      otherwise: 'Find the break or the whisker of shield; do not seal it in.',
    },
  }),
];

/** Where leave must be asked, it is asked before anything is cut or bought, and nothing goes up without it. */
export function withPermission(steps: readonly BuildStep[], askFirst: boolean): readonly BuildStep[] {
  if (!askFirst) return steps;
  const ask = step(
    'ask',
    'Ask whoever must agree (landlord, neighbours, the authority), with a sketch and the height; get it in writing.',
    {
      gate: {
        id: 'permission',
        question: 'Is the permission there?',
        otherwise: 'Wait for it, or choose an antenna that needs none.',
      },
    },
  );
  return [
    ask,
    ...steps.map((one) =>
      one.final || one.id === 'raise' || one.id === 'place'
        ? { ...one, waitsFor: ['permission', ...one.waitsFor] }
        : one,
    ),
  ];
}

/** The way of the cable into the house, before the storm protection; where nothing may be drilled it asks for no hole. */
export function withEntry(steps: readonly BuildStep[], noDrilling: boolean): readonly BuildStep[] {
  const entry = noDrilling
    ? step('entry', 'Bring the cable in through a window or an opening that is there, with a drip loop outside.')
    : step('entry', 'Bring the cable into the house: an opening that is there, else drill, with a drip loop outside.', {
        cautions: ['drilling'],
      });
  const before = steps.findIndex(({ id }) => id === 'storm');
  return before < 0 ? [...steps, entry] : [...steps.slice(0, before), entry, ...steps.slice(before)];
}

/** The feed is closed against water once it is measured. */
const SEAL = step('seal', 'Seal the feed point against water.', {
  cautions: ['spray', 'gas'],
  waitsFor: ['continuity', 'tested'],
  final: true,
});

/** Steps shared by wire antennas with a coax feed. `wires` names what is cut, `raise` how it goes up; `digs`: something goes into the ground. */
export function wireBuildPlan(wires: string, raise: string, digs = false): readonly BuildStep[] {
  return [
    step('site', 'Walk the route of every wire and rope. Note power lines, paths and what moves in wind.', {
      cautions: ['powerLine'],
      gate: {
        id: 'site-clear',
        question: 'Is every wire, rope and the mast itself farther from any power line than its own length?',
        otherwise: 'Choose another route, or another antenna.',
      },
    }),
    ...(digs ? [LOCATE] : []),
    step('cut', `Cut ${wires} to the cut length, not to the finished length.`, {
      cautions: ['knife'],
      waitsFor: ['site-clear'],
      final: true,
    }),
    ...FEED_CONNECTION,
    step('first-sweep', 'Raise it provisionally, sweep it and trim on the Bench.', {
      cautions: ['height', 'wind', 'touching'],
      gate: {
        id: 'tested',
        question: 'Does the sweep show the dip where you want it?',
        otherwise: 'Trim on the Bench first; leave the feed unsealed.',
      },
      waitsFor: ['continuity'],
    }),
    SEAL,
    step('raise', raise, {
      cautions: ['height', 'wind', 'powerLine', 'touching'],
      waitsFor: ['site-clear', ...(digs ? ['buried-located'] : []), 'tested'],
    }),
    step('ends', 'Keep the ends above reach and visible; leave slack for wind.', { cautions: ['neckHeight'] }),
    step('storm', 'Fit a way to disconnect the cable outside before storms.', { cautions: ['lightning'] }),
  ];
}

/** Steps for a wire that lies in the grass: nothing goes up, so nothing is said of ladders; feet, mowers and buried cables count instead. */
export function lawnBuildPlan(wires: string, lay: string): readonly BuildStep[] {
  return [
    LOCATE,
    step('cut', `Cut ${wires} to the cut length.`, {
      cautions: ['knife'],
      waitsFor: ['buried-located'],
      final: true,
    }),
    ...FEED_CONNECTION,
    step('lay', lay, { cautions: ['wetLawn', 'stakes'], waitsFor: ['buried-located', 'continuity'] }),
    step('first-sweep', 'Sweep it where it lies, and listen: the noise must rise over a dummy load.', {
      gate: {
        id: 'tested',
        question: 'Does it hear more than a dummy load?',
        otherwise: 'Look for a broken joint or a transformer the wrong way round; leave the feed unsealed.',
      },
      waitsFor: ['continuity'],
    }),
    SEAL,
    step('mow', 'Mark its place, and check the staples before the lawn is mown.', { cautions: ['stakes'] }),
    step('storm', 'Fit a way to disconnect the cable outside before storms.', { cautions: ['lightning'] }),
  ];
}

/** Steps for a loop, or a rod, with an amplifier at its foot. @param circumference of the loop; absent: a rod. */
export function loopBuildPlan(circumference?: string): readonly BuildStep[] {
  return [
    circumference === undefined
      ? step('bend', 'Fix the rod on top of the amplifier box, upright and insulated.')
      : step(
          'bend',
          `Bend the loop from ${circumference} of tube or stiff cable on a wooden form; leave the gap at the foot.`,
          {
            cautions: ['knife'],
          },
        ),
    step('collar', 'Slide gland and sleeve onto the cable before the plug.', {
      gate: { id: 'collar-on', question: 'Are gland and sleeve on the cable?', otherwise: 'Slide them on first.' },
    }),
    step('crimp', 'Join loop ends and cable to the amplifier box.', {
      cautions: ['solder'],
      waitsFor: ['collar-on'],
      final: true,
    }),
    step('dc', 'Measure the supply at the far end of the cable before the amplifier is connected.', {
      cautions: ['coaxDc'],
      gate: {
        id: 'dc-right',
        question: 'Right voltage, right polarity, no short?',
        otherwise: 'Do not connect the amplifier. Find the fault with the supply off.',
      },
    }),
    step('power', 'Connect the amplifier.', { cautions: ['battery'], waitsFor: ['dc-right'], final: true }),
    step('test', 'Listen at its place and turn it: noise must rise over a dummy load and dip in two directions.', {
      gate: {
        id: 'tested',
        question: 'Does the noise rise and is there a null in two opposite directions?',
        otherwise: 'Measure the current drawn; look for a broken loop joint.',
      },
      waitsFor: ['dc-right'],
    }),
    step('seal', 'Close and seal the amplifier box.', { cautions: ['cement'], waitsFor: ['tested'], final: true }),
    LOCATE,
    step('place', 'Fix it away from the house, its plane towards what you want.', {
      cautions: ['wind', 'stakes'],
      waitsFor: ['buried-located'],
    }),
    step('storm', 'Fit a way to disconnect the cable outside before storms.', { cautions: ['lightning'] }),
  ];
}
