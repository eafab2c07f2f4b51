/** Kinds of code that are looked for: our labels, and what stands on plates and gauges. */
export const FORMATS = ['qr_code', 'data_matrix', 'code_128', 'code_39', 'ean_13', 'ean_8', 'upc_a', 'itf'];
