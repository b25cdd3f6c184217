/** Above it no crystal of the wanted form V is left, °C (33.8 by Wille & Lutton 1966, and a little for a slow probe). */
export const MELTED_OUT_C = 34.5;
