/** A direction or a colour. */
export type Triple = [number, number, number];

export const dot = (a: Triple, b: Triple): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

export function unit([x, y, z]: Triple): Triple {
  const length = Math.hypot(x, y, z) || 1;
  return [x / length, y / length, z / length];
}

/**
 * Reflectance times cosine of one light, for a unit normal, view and light direction: Lambert beside the
 * microfacet model with the GGX distribution and its height-correlated masking (Walter et al. 2007,
 * Heitz 2014; the Fresnel term after Schlick 1994). Linear RGB; multiply with the light's strength.
 */
export function reflected(
  n: Triple,
  v: Triple,
  l: Triple,
  diffuse: Triple,
  f0: Triple,
  roughness: number,
): Triple {
  const nl = dot(n, l);
  if (nl <= 0) return [0, 0, 0];
  const nv = Math.max(1e-3, dot(n, v));
  const h = unit([v[0] + l[0], v[1] + l[1], v[2] + l[2]]);
  const nh = Math.max(0, dot(n, h));
  const a2 = Math.max(0.03, roughness) ** 4;
  const d = a2 / (Math.PI * (nh * nh * (a2 - 1) + 1) ** 2);
  const masking = 0.5 / (nl * Math.sqrt(nv * nv * (1 - a2) + a2) + nv * Math.sqrt(nl * nl * (1 - a2) + a2));
  const fresnel = (1 - Math.max(0, dot(v, h))) ** 5;
  return [0, 1, 2].map((c) => {
    const f = f0[c] + (1 - f0[c]) * fresnel;
    return (diffuse[c] * (1 - f) + Math.PI * d * masking * f) * nl;
  }) as Triple;
}

/** Share of even surroundings that a rough surface mirrors, per channel (analytic fit by Karis, 2014). */
export function mirrored(nv: number, f0: Triple, roughness: number): Triple {
  const r = 1 - roughness;
  const a = Math.min(r * r, 2 ** (-9.28 * nv)) * r + 0.0425 - 0.0275 * roughness;
  const scale = -1.04 * a + 1.04 - 0.572 * roughness;
  const bias = 1.04 * a - 0.04 + 0.022 * roughness;
  return f0.map((f) => Math.max(0, f * scale + bias)) as Triple;
}
