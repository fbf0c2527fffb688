/** Safety: the usual cautions at the steps where work can hurt someone. */
export { CAUTIONS, type CautionId } from './cautions';
