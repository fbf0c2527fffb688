import { choiceOf, loadOf, numberOf, plain, polarity, type StageKindSpec } from '../stage-kind';

/** Puts DC onto the coax: a choke towards the supply, a capacitor towards the receiver. */
export const biasFeed: StageKindSpec<'bias feed'> = {
  id: 'bias feed',
  article: 'a bias feed',
  name: 'Bias feed',
  stays: true,
  fields: [
    plain('supplyV', 'Gives, V', 1, 60, '12'),
    plain('limitMA', 'at most, mA', 1, 10_000, '300'),
    polarity('on the centre'),
    plain('chokeUH', 'Choke, µH', 0.01, 1e5, '100'),
    plain('capacitorNF', 'Capacitor, nF', 0.001, 1e5, '100'),
    {
      ...plain('headV', 'Amplifier in the antenna works down to, V', 0.5, 60, ''),
      ...{ optional: true, hint: 'of an active antenna, if it hangs on this feed' },
    },
    { ...plain('headMA', 'and draws, mA', 0.1, 10_000, ''), optional: true },
  ],
  stage: (values) => ({
    ...{ kind: 'bias feed', name: values.name },
    henry: numberOf(biasFeed, values, 'chokeUH') * 1e-6,
    farad: numberOf(biasFeed, values, 'capacitorNF') * 1e-9,
  }),
  dc(values) {
    const { name, figures } = values;
    const positive = choiceOf(biasFeed, values, 'polarity') === 'plus';
    const head = loadOf('the amplifier in the antenna', figures.headV, figures.headMA, positive);
    return {
      ...{ dc: 'feed', name, supplyV: numberOf(biasFeed, values, 'supplyV'), positive },
      limitA: numberOf(biasFeed, values, 'limitMA') / 1000,
      ...(head ? { head } : {}),
    };
  },
};
