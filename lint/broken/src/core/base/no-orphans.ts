export const nobody = 1;
