/** Operations that the book keeps settings for. Those judged by depth are found by test cuts; the others build on them. */
export const OPERATIONS = ['kiss', 'through', 'perforated', 'score', 'crease'] as const;
export type Operation = (typeof OPERATIONS)[number];

/** Operations that are judged by how deep they went: test cuts can find their force. */
export const DEPTH_OPERATIONS = ['kiss', 'through', 'score'] as const satisfies readonly Operation[];
export type DepthOperation = (typeof DEPTH_OPERATIONS)[number];

/** The words for each operation. */
export const OPERATION_WORDS: Readonly<Record<Operation, string>> = {
  kiss: 'Kiss',
  through: 'Through',
  perforated: 'Perforated',
  score: 'Score',
  crease: 'Crease',
};

/**
 * Whose threshold the depth of a cut teaches: along its cut lengths a perforation is a through cut, a crease is pressed
 * and has no depth (`null`).
 *
 * @example depthTaughtBy('perforated') // 'through'
 */
export function depthTaughtBy(operation: Operation): DepthOperation | null {
  if (operation === 'crease') return null;
  return operation === 'perforated' ? 'through' : operation;
}
