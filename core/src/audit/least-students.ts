/** Of fewer students nothing is said: chance alone makes any pattern. */
export const leastStudents = 10;

/** Of the sheets that a pattern names, the share that is expected to be chance after all. */
export const falseAlarms = 0.05;
