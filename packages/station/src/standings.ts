import { runsOnPlan, severityOf } from './derive';
import { guardVerdict, judgedGuard } from './guard/judge';
import type { StationData } from './record';
import { plannedTransmitters } from './transmitters';
import { judgedBench, judgedNoise, judgedPath, judgedTrial } from './verdicts';
import type { StepId, StepStanding } from './steps';

/** Where each step stands, from what is recorded and its verdict. */
export const standings = (data: StationData): Readonly<Record<StepId, StepStanding>> => ({
  listen: standing(data, 'listen'),
  plot: standing(data, 'plot'),
  choose: standing(data, 'choose'),
  draft: standing(data, 'draft'),
  bench: standing(data, 'bench'),
  trials: standing(data, 'trials'),
  noise: standing(data, 'noise'),
  path: standing(data, 'path'),
  guard: standing(data, 'guard'),
  notebook: standing(data, 'notebook'),
});

function standing(data: StationData, step: StepId): StepStanding {
  switch (step) {
    case 'listen':
      return data.targets.length === 0 ? 'empty' : data.receivers.length === 0 ? 'in work' : 'done';
    case 'plot':
      return data.plotFeatures.length === 0
        ? 'empty'
        : runsOnPlan(data).some(({ layout }) => severityOf(layout) > 0)
          ? 'doubtful'
          : data.plotFeatures.some((feature) => feature.kind === 'antenna')
            ? 'done'
            : 'in work';
    case 'choose':
      return data.antennas.length > 0 ? 'done' : data.targets.length > 0 ? 'in work' : 'empty';
    case 'draft': {
      if (data.revisions.length === 0) return 'empty';
      return data.revisions.some((revision) => revision.gates.includes('tested')) ? 'done' : 'in work';
    }
    case 'bench': {
      if (data.sweeps.length === 0 && data.trimSteps.length === 0) return 'empty';
      const states = data.antennas.flatMap((antenna) => {
        const { verdict, steps } = judgedBench(data, antenna, undefined);
        return steps.length > 0 ? [verdict.state] : [];
      });
      if (states.some((state) => state === 'stop' || state === 'too short')) return 'doubtful';
      return states.includes('on target') ? 'done' : 'in work';
    }
    case 'trials': {
      if (data.trials.length === 0) return 'empty';
      const judged = data.trials.map((trial) => judgedTrial(data, trial));
      if (judged.some(({ verdict, holding }) => verdict.doubt !== undefined || holding.state === 'not'))
        return 'doubtful';
      return judged.some(({ verdict }) => verdict.snr.proven) ? 'done' : 'in work';
    }
    case 'noise': {
      const { state } = judgedNoise(data);
      if (state === 'nothing measured') return 'empty';
      return state === 'some other floor'
        ? 'in work'
        : state === 'no rise' || state === 'perhaps overload'
          ? 'doubtful'
          : 'done';
    }
    case 'path': {
      const judged = data.paths.flatMap((path) => judgedPath(data, path) ?? []);
      if (judged.length === 0) return data.paths.length === 0 ? 'empty' : 'in work';
      return judged.every(
        ({ verdict }) => !verdict.threatened && (verdict.better.state === 'fine' || verdict.better.state === 'noise'),
      )
        ? judged.every(({ verdict }) => verdict.overloadJudged)
          ? 'done'
          : 'in work'
        : 'doubtful';
    }
    case 'guard': {
      const judged = plannedTransmitters(data).map((plan) => judgedGuard(data, plan));
      if (judged.length === 0) return 'empty';
      if (judged.every(({ proof }) => proof.receivers.length === 0)) return 'in work';
      const verdicts = judged.map((one) => ({ ...guardVerdict(one), thin: one.proof.worst?.thin ?? false }));
      if (
        verdicts.some(({ pending }) => pending) &&
        verdicts.every(({ pending, colour }) => pending || colour !== 'danger')
      )
        return 'in work';
      // what was only typed is no proof
      return verdicts.every(({ colour, thin }) => (colour === 'proven' || colour === 'computed') && !thin)
        ? 'done'
        : 'doubtful';
    }
    case 'notebook':
      return data.entries.length === 0 ? 'empty' : 'in work';
  }
}
