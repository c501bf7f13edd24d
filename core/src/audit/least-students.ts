/** Of fewer students nothing is said: chance alone makes any pattern. */
export const leastStudents = 10;
