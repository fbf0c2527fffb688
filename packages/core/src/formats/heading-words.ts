/** A heading in plain Latin letters: "Fréquence" and "Częstotliwość" without their marks. */
const plainLetters = (text: string): string =>
  text.toLowerCase().normalize('NFD').replaceAll(/\p{M}/gu, '').replaceAll('ł', 'l').replaceAll('ß', 'ss');

/**
 * What tables call their columns in English, German, French, Spanish, Italian, Dutch, Portuguese and Polish (dictionary words; the abbreviations for the
 * standing wave ratio are common practice, no source).
 */
const WORDS = {
  frequency: /^(f|freq(uency)?|frequenz|frequence|frecuencia|frequenza|frequentie|frequencia|czestotliwosc|frekvens)$/,
  r: /^(r|rs|resistance|widerstand|wirkwiderstand|resistencia|resistenza|weerstand|rezystancja)$/,
  x: /^(x|xs|reactance|reaktanz|blindwiderstand|reactancia|reattanza|reactantie|reatancia|reaktancja)$/,
  swr: /^(v?swr|vswr|swv|s?wfs|roe|ros|tos|sgv)$/,
  'return-loss':
    /^(ruckflussdampfung|affaiblissement de reflexion|pertes? (de|par) ret(our|orno)|perdidas? de retorno|perdita di ritorno|retourverlies|perdas? de retorno|tlumiennosc odbicia)$/,
  phase: /^(phase|phasenwinkel|fase|faza|winkel|angle|angulo|angolo|hoek|kat)$/,
  z: /^(z|impedance|impedanz|impedancia|impedenza|impedantie|impedancja|scheinwiderstand)$/,
  level:
    /^(level|pegel|niveau|nivel|livello|poziom|feldstarke|signal|signalstarke|noise|rauschen|bruit|ruido|rumore|ruis|szum)$/,
  time: /^(time|zeit|uhrzeit|heure|temps|hora|tiempo|ora|tempo|tijd|czas|godzina|timestamp|zeitstempel|epoch|unix( ?time)?|datetime|date ?time)$/,
  date: /^(date|datum|fecha|data|dia|tag|jour|dag|dzien)$/,
} as const;
type HeadingWord = keyof typeof WORDS;

/** Unit, brackets and what stands in them taken off. */
const bare = (heading: string): string =>
  plainLetters(heading)
    .replaceAll(/[([{].*?[)\]}]/g, ' ')
    .replaceAll(/["_/.:;#-]/g, ' ')
    .replaceAll(/\b(k|m|g)?hz\b|\bohms?\b|[ωµμ]|\bdb\w*\b|\bdeg\w*\b|°|\butc\b|\bgmt\b|\bin\b/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim();

/** Whether a heading is one of the words for a quantity, in any of eight languages. */
export const headingSays = (heading: string, what: HeadingWord): boolean => WORDS[what].test(bare(heading));
