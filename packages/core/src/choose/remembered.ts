/** The same function, each answer kept by its argument, or by a text or number for it. */
export function remembered<A, R>(
  answer: (asked: A) => R,
  key: (asked: A) => unknown = (asked) => asked,
): (asked: A) => R {
  const known = new Map<unknown, R>();
  return (asked) => {
    const name = key(asked);
    const found = known.get(name);
    if (found !== undefined) return found;
    const made = answer(asked);
    known.set(name, made);
    return made;
  };
}

/** The same for objects that do not change: an answer is kept as long as its object is. */
export function rememberedOf<A extends object, R>(answer: (asked: A) => R): (asked: A) => R {
  const known = new WeakMap<A, { readonly made: R }>();
  return (asked) => {
    const found = known.get(asked) ?? { made: answer(asked) };
    known.set(asked, found);
    return found.made;
  };
}
