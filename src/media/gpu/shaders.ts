/** One triangle that covers everything; places are told by the pixel itself. */
export const everywhere = `#version 300 es
in vec2 position;
void main() { gl_Position = vec4(position, 0.0, 1.0); }`;

const head = `#version 300 es
precision highp float;
precision highp int;
precision highp sampler2D;
out vec4 result;
ivec2 here() { return ivec2(gl_FragCoord.xy); }
vec4 heldAt(sampler2D source, ivec2 place) {
  return texelFetch(source, clamp(place, ivec2(0), textureSize(source, 0) - 1), 0);
}
`;

/** Full-range colours in steps of 8 bits from three planes, each chroma sample held over its two by two pixels. */
const fromYuv = `${head}
uniform sampler2D y;
uniform sampler2D u;
uniform sampler2D v;
uniform vec2 luma; // what is black, how much a code is
uniform vec4 chroma; // red from v, green from u, green from v, blue from u
void main() {
  ivec2 at = here();
  float light = (texelFetch(y, at, 0).r * 255.0 - luma.x) * luma.y;
  float cu = texelFetch(u, at >> 1, 0).r * 255.0 - 128.0;
  float cv = texelFetch(v, at >> 1, 0).r * 255.0 - 128.0;
  vec3 codes = light + vec3(chroma.x * cv, chroma.y * cu + chroma.z * cv, chroma.w * cu);
  result = vec4(floor(clamp(codes, 0.0, 255.0) + 0.5) / 255.0, 1.0);
}`;

/** A picture through a map: Catmull-Rom, the mean of several points where it is shrunk, what lies beyond its edges, colour decision. */
const draw = `${head}
uniform sampler2D source;
uniform vec2 acrossBack; // the map from this pixel to the source's, column by column
uniform vec2 downBack;
uniform vec2 originBack;
uniform ivec4 box; // left, top, right, bottom of the part that there is
uniform int edges; // 0 empty, 1 mirrored, 2 repeated
uniform int steps;
uniform bool graded;
uniform vec3 slope;
uniform vec3 offset;
uniform vec3 power;
uniform float saturation;
vec4 weightsOf(float t) {
  float t2 = t * t;
  float t3 = t2 * t;
  return vec4(-0.5 * t + t2 - 0.5 * t3, 1.0 - 2.5 * t2 + 1.5 * t3, 0.5 * t + 2.0 * t2 - 1.5 * t3, -0.5 * t2 + 0.5 * t3);
}
int folded(int index, int from, int until) {
  int span = until - from;
  if (edges == 0) return clamp(index, from, until - 1);
  int round = edges == 2 ? span : 2 * span;
  int place = (index - from) % round;
  if (place < 0) place += round;
  return from + (place < span ? place : round - 1 - place);
}
vec4 sampled(vec2 point) {
  ivec2 corner = ivec2(floor(point - 0.5));
  vec2 rest = point - 0.5 - vec2(corner);
  vec4 wx = weightsOf(rest.x);
  vec4 wy = weightsOf(rest.y);
  vec4 sum = vec4(0.0);
  for (int row = 0; row < 4; row++) {
    int line = folded(corner.y + row - 1, box.y, box.w);
    for (int column = 0; column < 4; column++) {
      int place = folded(corner.x + column - 1, box.x, box.z);
      sum += wx[column] * wy[row] * texelFetch(source, ivec2(place, line), 0);
    }
  }
  float cover = clamp(sum.a, 0.0, 1.0);
  return vec4(clamp(sum.rgb, vec3(0.0), vec3(cover)), cover);
}
vec4 decided(vec4 given) {
  if (given.a <= 0.0) return given;
  vec3 colour = pow(clamp(given.rgb / given.a * slope + offset, 0.0, 1.0), power);
  float light = dot(colour, vec3(0.2126, 0.7152, 0.0722));
  return vec4(clamp(light + (colour - light) * saturation, 0.0, 1.0) * given.a, given.a);
}
void main() {
  vec4 sum = vec4(0.0);
  vec2 from = vec2(box.xy);
  vec2 until = vec2(box.zw);
  for (int step = 0; step < steps * steps; step++) {
    vec2 inside = (vec2(step % steps, step / steps) + 0.5) / float(steps);
    vec2 point = vec2(here()) + inside;
    vec2 back = acrossBack * point.x + downBack * point.y + originBack;
    if (edges == 0 && (any(lessThan(back, from)) || any(greaterThan(back, until)))) continue;
    vec4 given = sampled(back);
    sum += graded ? decided(given) : given;
  }
  result = sum / float(steps * steps);
}`;

/** One colour everywhere. */
const fill = `${head}
uniform vec4 colour;
void main() { result = colour; }`;

/** Grey grains of some size. */
const grains = `${head}
uniform sampler2D source;
uniform float grain;
void main() {
  float value = texelFetch(source, ivec2(floor(vec2(here()) / grain)), 0).r;
  result = vec4(vec3(value), 1.0);
}`;

/** A surface as it is. */
const copy = `${head}
uniform sampler2D source;
void main() { result = texelFetch(source, here(), 0); }`;

/** A part of a surface, of which several make up a mean. */
const share = `${head}
uniform sampler2D source;
uniform float share;
void main() { result = texelFetch(source, here(), 0) * share; }`;

/** A colour, as much as a raster is light. */
const tinted = `${head}
uniform sampler2D source;
uniform vec3 colour;
void main() { float cover = texelFetch(source, here(), 0).r; result = vec4(colour * cover, cover); }`;

/** W3C Compositing and Blending Level 1: source over with mixing. */
const blend = `${head}
uniform sampler2D back;
uniform sampler2D front;
uniform int mode;
float mixed(float b, float s) {
  if (mode == 1) return b * s;
  if (mode == 2) return b + s - b * s;
  if (mode == 3) return max(b, s);
  if (mode == 4) return min(b, s);
  if (mode == 5) return abs(b - s);
  if (mode == 6) return b <= 0.5 ? 2.0 * b * s : 1.0 - 2.0 * (1.0 - b) * (1.0 - s);
  if (mode == 7) return b == 0.0 ? 0.0 : s >= 1.0 ? 1.0 : min(1.0, b / (1.0 - s));
  if (mode == 8) return b >= 1.0 ? 1.0 : s <= 0.0 ? 0.0 : 1.0 - min(1.0, (1.0 - b) / s);
  return s;
}
void main() {
  vec4 under = texelFetch(back, here(), 0);
  vec4 over = texelFetch(front, here(), 0);
  if (over.a <= 0.0) { result = under; return; }
  vec3 colour = over.rgb + under.rgb * (1.0 - over.a);
  if (mode != 0 && under.a > 0.0) {
    vec3 b = under.rgb / under.a;
    vec3 s = over.rgb / over.a;
    vec3 both = vec3(mixed(b.r, s.r), mixed(b.g, s.g), mixed(b.b, s.b));
    colour = (1.0 - under.a) * over.rgb + (1.0 - over.a) * under.rgb + over.a * under.a * both;
  }
  result = vec4(colour, under.a + over.a - under.a * over.a);
}`;

/** How much of a picture is to be seen, from one channel of another. */
const cover = `${head}
uniform sampler2D source;
uniform bool ofAlpha;
uniform bool inverted;
void main() {
  vec4 given = texelFetch(source, here(), 0);
  float value = ofAlpha ? given.a : given.r;
  result = vec4(inverted ? 1.0 - value : value);
}`;

/** The greatest or the smallest coverage within a distance. */
const grow = `${head}
uniform sampler2D source;
uniform float distance;
void main() {
  int reach = int(floor(abs(distance)));
  ivec2 most = textureSize(source, 0) - 1;
  float found = texelFetch(source, here(), 0).r;
  for (int dy = -reach; dy <= reach; dy++) {
    int across = int(floor(sqrt(distance * distance - float(dy * dy))));
    for (int dx = -across; dx <= across; dx++) {
      ivec2 place = here() + ivec2(dx, dy);
      if (any(lessThan(place, ivec2(0))) || any(greaterThan(place, most))) continue;
      float value = texelFetch(source, place, 0).r;
      found = distance > 0.0 ? max(found, value) : min(found, value);
    }
  }
  result = vec4(found);
}`;

/** Plain means along one axis over a reach that need not be whole; the edge is held. */
const soften = `${head}
uniform sampler2D source;
uniform ivec2 along;
uniform float reach;
void main() {
  int whole = int(floor(reach));
  vec4 sum = (reach - float(whole)) * (heldAt(source, here() - (whole + 1) * along) + heldAt(source, here() + (whole + 1) * along));
  for (int step = -whole; step <= whole; step++) sum += heldAt(source, here() + step * along);
  result = sum / (2.0 * reach + 1.0);
}`;

/** Gaussian means along one axis out to four deviations; the edge is held. */
const gaussian = `${head}
uniform sampler2D source;
uniform ivec2 along;
uniform float deviation;
void main() {
  int reach = max(1, int(ceil(4.0 * deviation)));
  vec4 sum = vec4(0.0);
  float all = 0.0;
  for (int step = -reach; step <= reach; step++) {
    float weight = exp(-float(step * step) / (2.0 * deviation * deviation));
    sum += weight * heldAt(source, here() + step * along);
    all += weight;
  }
  result = sum / all;
}`;

/** Red moved one way, blue the other; evenly between neighbours. */
const split = `${head}
uniform sampler2D source;
uniform vec2 by;
float shifted(int channel, vec2 move) {
  vec2 place = vec2(here()) - move;
  ivec2 corner = ivec2(floor(place));
  vec2 t = place - vec2(corner);
  float top = mix(heldAt(source, corner)[channel], heldAt(source, corner + ivec2(1, 0))[channel], t.x);
  float bottom = mix(heldAt(source, corner + ivec2(0, 1))[channel], heldAt(source, corner + ivec2(1, 1))[channel], t.x);
  return mix(top, bottom, t.y);
}
void main() {
  vec4 given = texelFetch(source, here(), 0);
  result = vec4(min(given.a, shifted(0, by)), given.g, min(given.a, shifted(2, -by)), given.a);
}`;

const negative = `${head}
uniform sampler2D source;
uniform float amount;
void main() {
  vec4 given = texelFetch(source, here(), 0);
  result = vec4(given.rgb + (given.a - 2.0 * given.rgb) * amount, given.a);
}`;

const evenly = `
vec4 evenlyAt(sampler2D source, vec2 point) {
  ivec2 corner = ivec2(floor(point - 0.5));
  vec2 t = point - 0.5 - vec2(corner);
  vec4 top = mix(heldAt(source, corner), heldAt(source, corner + ivec2(1, 0)), t.x);
  vec4 bottom = mix(heldAt(source, corner + ivec2(0, 1)), heldAt(source, corner + ivec2(1, 1)), t.x);
  return mix(top, bottom, t.y);
}
`;

/** The mean along a line through each pixel. */
const directional = `${head}${evenly}
uniform sampler2D source;
uniform vec2 line;
uniform int samples;
void main() {
  vec4 sum = vec4(0.0);
  for (int step = 0; step < samples; step++)
    sum += evenlyAt(source, vec2(here()) + 0.5 + (float(step) / float(samples - 1) - 0.5) * line);
  result = sum / float(samples);
}`;

/** The mean on the way towards the middle. */
const zoom = `${head}${evenly}
uniform sampler2D source;
uniform float share;
uniform int samples;
void main() {
  vec2 middle = vec2(textureSize(source, 0)) / 2.0;
  vec2 away = vec2(here()) + 0.5 - middle;
  vec4 sum = vec4(0.0);
  for (int step = 0; step < samples; step++)
    sum += evenlyAt(source, middle + away * (1.0 - share * float(step) / float(samples - 1)));
  result = sum / float(samples);
}`;

const wave = `${head}${evenly}
uniform sampler2D source;
uniform float by;
uniform float wavelength;
uniform float turned;
void main() {
  vec2 point = vec2(here()) + 0.5;
  result = evenlyAt(source, point + vec2(by * sin(6.283185307179586 * point.y / wavelength + turned), 0.0));
}`;

const bend = `${head}${evenly}
uniform sampler2D source;
uniform float amount;
void main() {
  vec2 middle = vec2(textureSize(source, 0)) / 2.0;
  vec2 away = vec2(here()) + 0.5 - middle;
  result = evenlyAt(source, middle + away * (1.0 + amount * dot(away, away) / dot(middle, middle)));
}`;

const vignette = `${head}
uniform sampler2D source;
uniform float amount;
void main() {
  vec4 given = texelFetch(source, here(), 0);
  vec2 middle = vec2(textureSize(source, 0)) / 2.0;
  vec2 away = vec2(here()) + 0.5 - middle;
  result = vec4(clamp(given.rgb * (1.0 - amount * dot(away, away) / dot(middle, middle)), vec3(0.0), vec3(given.a)), given.a);
}`;

/** Colours through a matrix. */
const colours = `${head}
uniform sampler2D source;
uniform vec3 red;
uniform vec3 green;
uniform vec3 blue;
void main() {
  vec4 given = texelFetch(source, here(), 0);
  vec3 changed = vec3(dot(red, given.rgb), dot(green, given.rgb), dot(blue, given.rgb));
  result = vec4(clamp(changed, vec3(0.0), vec3(given.a)), given.a);
}`;

const tint = `${head}
uniform sampler2D source;
uniform vec3 colour;
uniform float amount;
void main() {
  vec4 given = texelFetch(source, here(), 0);
  vec3 one = dot(given.rgb, vec3(0.2126, 0.7152, 0.0722)) * colour;
  result = vec4(clamp(mix(given.rgb, one, amount), vec3(0.0), vec3(given.a)), given.a);
}`;

/** What is brighter than some light. */
const bright = `${head}
uniform sampler2D source;
uniform float from;
void main() {
  vec4 given = texelFetch(source, here(), 0);
  result = vec4(min(vec3(given.a), max(vec3(0.0), given.rgb - from * given.a) / max(1e-6, 1.0 - from)), given.a);
}`;

/** Light screened over a surface. */
const glow = `${head}
uniform sampler2D source;
uniform sampler2D light;
uniform float amount;
void main() {
  vec4 given = texelFetch(source, here(), 0);
  vec3 more = amount * min(vec3(given.a), texelFetch(light, here(), 0).rgb);
  vec3 both = given.a > 0.0 ? given.rgb + more - given.rgb * more / given.a : vec3(0.0);
  result = vec4(clamp(both, vec3(0.0), vec3(given.a)), given.a);
}`;

/** Four samples of a plane of a video picture in one pixel, of colours in steps of 8 bits. */
const toPlane = `${head}
uniform sampler2D source;
uniform bool isLuma;
uniform vec4 factors; // of red, green, blue, and what is added
ivec2 last;
vec3 codeAt(ivec2 place) { return floor(clamp(texelFetch(source, place, 0).rgb, 0.0, 1.0) * 255.0 + 0.5); }
float sampleAt(ivec2 place) {
  if (isLuma) return dot(codeAt(min(place, last)), factors.rgb) + factors.a;
  vec3 sum = vec3(0.0);
  float count = 0.0;
  for (int dy = 0; dy < 2; dy++) {
    for (int dx = 0; dx < 2; dx++) {
      ivec2 at = 2 * place + ivec2(dx, dy);
      if (any(greaterThan(at, last))) continue;
      sum += codeAt(at);
      count += 1.0;
    }
  }
  return count > 0.0 ? dot(sum / count, factors.rgb) + factors.a : 0.0;
}
void main() {
  last = textureSize(source, 0) - 1;
  ivec2 first = ivec2(here().x * 4, here().y);
  vec4 codes = vec4(sampleAt(first), sampleAt(first + ivec2(1, 0)), sampleAt(first + ivec2(2, 0)), sampleAt(first + ivec2(3, 0)));
  result = floor(clamp(codes, 0.0, 255.0) + 0.5) / 255.0;
}`;

/** What is computed for every pixel, by name. */
export const shaders = {
  fromYuv,
  draw,
  fill,
  grains,
  copy,
  share,
  tinted,
  blend,
  cover,
  grow,
  soften,
  gaussian,
  split,
  negative,
  directional,
  zoom,
  wave,
  bend,
  vignette,
  colours,
  tint,
  bright,
  glow,
  toPlane,
} as const;
