import type { Layer, LayerRole, Stack } from '#core/stack/layer.ts';

/**
 * A stack nobody has measured yet, from the top.
 *
 * @param rows the role of each layer and its caliper in µm
 * @example assumeStack(['face', 85], ['liner', 65])[0] // { role: 'face', caliperUm: 85, isMeasured: false }
 */
export function assumeStack(...rows: readonly (readonly [LayerRole, number])[]): Stack {
  return rows.map(([role, caliperUm]): Layer => ({ role, caliperUm, isMeasured: false }));
}
