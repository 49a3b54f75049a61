import { BackSide, ShaderMaterial, Vector2 } from "three";

// An ink drawing that turns: bodies in two soft tones, and an outline of even
// width whatever the distance.

const normals = /* glsl */ `
  vec3 turnedNormal() {
    mat3 m = mat3(instanceMatrix);
    vec3 n = normal / vec3(dot(m[0], m[0]), dot(m[1], m[1]), dot(m[2], m[2]));
    return normalize(normalMatrix * (m * n));
  }`;

export const bodyMaterial = () =>
  new ShaderMaterial({
    vertexShader: /* glsl */ `
      attribute float shade;
      varying vec3 vNormal;
      varying vec3 vTint;
      ${normals}
      void main() {
        vNormal = turnedNormal();
        vTint = instanceColor * shade;
        gl_Position = projectionMatrix * modelViewMatrix * instanceMatrix * vec4(position, 1.0);
      }`,
    fragmentShader: /* glsl */ `
      varying vec3 vNormal;
      varying vec3 vTint;
      void main() {
        float light = dot(normalize(vNormal), normalize(vec3(-0.45, 0.7, 0.75)));
        gl_FragColor = vec4(vTint * mix(0.72, 1.0, smoothstep(-0.25, 0.75, light)), 1.0);
      }`,
  });

export const inkMaterial = () =>
  new ShaderMaterial({
    side: BackSide,
    uniforms: { ink: { value: [0, 0, 0] }, wide: { value: 1.2 }, view: { value: new Vector2(1, 1) } },
    vertexShader: /* glsl */ `
      uniform float wide;
      uniform vec2 view;
      ${normals}
      void main() {
        vec4 p = projectionMatrix * modelViewMatrix * instanceMatrix * vec4(position, 1.0);
        vec2 d = (projectionMatrix * vec4(turnedNormal(), 0.0)).xy * view;
        float n = length(d);
        if (n > 0.0) p.xy += d / n * wide * 2.0 / view * p.w;
        gl_Position = p;
      }`,
    fragmentShader: /* glsl */ `
      uniform vec3 ink;
      void main() { gl_FragColor = vec4(ink, 1.0); }`,
  });
