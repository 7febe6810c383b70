/**
 * The correspondences this tool knows, each with a keyword in which the spelling makes that sound.
 * Written by hand for this tool. One row a sound, `grapheme keyword` pairs after it.
 */
export const inventory = `
b: b boat, bb rubber, bu build
d: d duck, dd ladder, ed rained
f: f fish, ff cliff, ph graph, gh laugh
g: g gate, gg egg, gu guard, gh ghost
h: h heron, wh who
j: j jug, g gem, ge large, dge bridge, dj adjust
k: k kiln, c cat, ck lock, ch anchor, cc soccer, que antique, lk walk, q quay
l: l lamp, ll bell, le little, el tunnel, al pedal, il pencil
m: m mud, mm hammer, mb comb, mn autumn
n: n nest, nn dinner, kn knot, gn gnat
ng: ng song, n sink
p: p plank, pp supper
r: r rope, rr barrow, wr wrist, rh rhyme
s: s sail, ss moss, c city, ce fence, se house, st castle, sc scent, ps psalm
t: t tap, tt kettle, ed jumped, bt doubt
v: v van, ve sleeve, vv skivvy
w: w web, wh wheel, u suit
y: y yard, i onion
z: z zip, zz buzz, s nose, se cheese, ze sneeze, ss scissors
sh: sh ship, ch chef, ti station, ci special, s sugar, ss pressure, si mansion
zh: s treasure, si vision, g beige
ch: ch chain, tch hatch, t picture
th: th moth
dh: th then, the breathe
ks: x box
gz: x exam
kw: qu quilt
a: a anchor, ai plait
e: e egg, ea bread, ai said, a many, ie friend, eo leopard
i: i ink, y gym, e pretty, ui build, u busy, o women, ie sieve
o: o otter, a wasp, ou cough, o_e gone
u: u up, o son, ou young, o_e some, oo flood, oe does
uu: oo hook, u push, oul could
ai: ai rain, ay day, a_e lake, a paper, ey they, ea steak, eigh eight, ei veil, aigh straight
ee: ee feet, ea leaf, e me, y muddy, ie field, ey donkey, e_e these, i taxi, ei ceiling, i_e machine, eo people
igh: igh night, i_e kite, y sky, ie tie, i tiger, eigh height, uy buy, ye dye
oa: oa boat, ow snow, o_e rope, o go, oe toe, ou shoulder, ough dough, ew sew
oo: oo moon, ew chew, u_e rule, ue blue, u truth, ou soup, o do, ui fruit, ough through, oe shoe, o_e move
yoo: u unit, u_e cube, ue value, ew few, eau beauty
ar: ar yard, a father, al calm, are are, ear heart
or: or fork, aw saw, au haul, ore shore, al walk, a water, our four, oor door, augh caught, ough bought, oar board, ar warm
er: er fern, ir bird, ur burn, or word, ear earth, our journey, ere were
ow: ow towpath, ou cloud, ough bough
oi: oi coin, oy boy
ear: ear near, eer deer, ere here, ier pier
air: air chair, are care, ear pear, ere there, eir their
ure: ure cure, oor moor, our tour
schwa: er hammer, a about, or doctor, ar collar, o lemon, e kitten, ure picture, our harbour, u walrus, re metre, i pencil
`;
