/** Makes something of settings once for each settings object, however many signals ask for it. */
export function compiled<S extends object, C>(make: (settings: S) => C): (settings: S) => C {
  const known = new WeakMap<S, C>();
  return (settings) => {
    const found = known.get(settings);
    if (found !== undefined) return found;
    const made = make(settings);
    known.set(settings, made);
    return made;
  };
}
