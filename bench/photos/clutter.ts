import type { Chance } from './chance.ts'
import { hsv, rgb } from './grounds.ts'
import { classes, type Factors, type Hands } from './parts.ts'

/** What lies beside and is none of the things: a cup, a hand. */
export function clutter(
  kind: NonNullable<Factors['clutter']>,
  r: Chance,
  h: Pick<Hands, 'add' | 'flat' | 'wide' | 'blocked'>,
): void {
  const side = r.one([-1, 1])
  const [x, z] = [side * h.wide * r.between(0.55, 0.95), r.between(-0.6, 0.45) * h.wide]
  const c = h.flat(hsv(r.between(0, 360), r.between(0, 0.9), r.between(0.15, 0.95)))
  const f = (n: number) => n.toFixed(2)
  const block = (bx: number, bz: number, reach: number) => h.blocked.push({ x: bx, z: bz, y: 0, reach })
  switch (kind) {
    case 'cup': {
      const q = r.between(3.2, 4.6)
      h.add(
        `union{difference{cylinder{0,<0,9,0>,${f(q)}} cylinder{<0,0.5,0>,<0,10,0>,${f(q * 0.92)}} T} torus{2.6,0.5 rotate x*90 translate <${f(q + 1)},4.5,0> T} rotate y*${r.whole(0, 359)} translate <${f(x)},0,${f(z)}>}`,
        c,
        classes.clutter,
      )
      h.add(
        `cylinder{<0,0.6,0>,<0,${f(r.between(3, 8))},0>,${f(q * 0.91)} translate <${f(x)},0,${f(z)}> T}`,
        h.flat(hsv(25, 0.6, r.between(0.15, 0.9))),
        classes.clutter,
      )
      return void block(x, z, q + 4)
    }
    case 'hand': {
      const skin = `texture{pigment{${rgb(hsv(r.between(14, 30), r.between(0.25, 0.6), r.between(0.25, 0.95)))}} finish{ambient 0.12 diffuse 0.75 specular 0.15} normal{bumps 0.1 scale 0.3}}`
      const long = r.between(0.75, 1.1)
      const fingers = [-2.6, -0.9, 0.9, 2.5].map(
        (q, i) => `cylinder{<${f(q)},0,2>,<${f(q * 1.5)},0,${f([8.2, 9.6, 9.2, 7.4][i]! * long)}>,0.95,1.2}`,
      )
      h.add(
        `blob{threshold 0.4 sphere{<0,0,0>,4.6,1.4} sphere{<0,0,-3>,4.2,1.2} cylinder{<0,0,-4>,<0,0,-22>,3.4,1.2} cylinder{<3,0,-1>,<6,0,3.5>,1.25,1.2} ${fingers.join(' ')} scale <${side > 0 ? 1 : -1},0.55,1> scale ${f(r.between(0.8, 1.15))} rotate y*${side > 0 ? r.whole(-100, -40) : r.whole(40, 100)} translate <${f(x * 1.05)},0.9,${f(z - 2)}> T}`,
        skin,
        classes.clutter,
      )
      return void block(x, z, 9)
    }
    case 'pencil': {
      const l = r.between(10, 17)
      h.add(
        `union{cylinder{<${f(-l / 2)},0.35,0>,<${f(l / 2 - 1.5)},0.35,0>,0.36 T} cone{<${f(l / 2 - 1.5)},0.35,0>,0.36,<${f(l / 2)},0.35,0>,0.03 T} rotate y*${r.whole(0, 359)} translate <${f(x * 0.8)},0,${f(z)}>}`,
        c,
        classes.clutter,
      )
      for (let i = -2; i <= 2; i++) block(x * 0.8 + i * 0.1, z, l * 0.55)
      return
    }
    case 'spoon':
      h.add(
        `union{sphere{0,1 scale <2.6,0.5,1.8> translate <7,0.5,0> T} cylinder{<-6,0.5,0>,<5,0.4,0>,0.35 T} rotate y*${r.whole(0, 359)} translate <${f(x * 0.85)},0,${f(z)}>}`,
        `texture{pigment{rgb 0.7} finish{ambient 0.1 diffuse 0.6 metallic specular 0.7 reflection 0.15}}`,
        classes.clutter,
      )
      return void block(x * 0.85, z, 9)
    case 'book':
      h.add(
        `box{<-6,0,-8>,<6,1.4,8> rotate y*${r.whole(0, 359)} translate <${f(x * 1.15)},0,${f(z)}> T}`,
        c,
        classes.clutter,
      )
      return void block(x * 1.15, z, 10)
  }
}
