export { accessMatrix, actions, type Action, type ActionFacts } from './access-matrix.js';
export {
  may,
  mayAt,
  mayInAll,
  ofSchool,
  ofSection,
  schoolsWhere,
  type Holder,
  type Schools,
  type Whereabouts,
} from './may.js';
export { isRegistrarOfAll, normalGrants, roleNames, roles, type Grant, type Role } from './roles.js';
