/** Several rules of a field as one. */
export const all =
  (...rules: readonly PropertyDecorator[]): PropertyDecorator =>
  (target, key) => {
    for (const rule of rules) rule(target, key);
  };
