/**
 * The correspondences this tool knows, each with a keyword in which the spelling makes that sound.
 * Written by hand for this tool. One row a sound, `grapheme keyword` pairs after it.
 */
export const inventory = `
b: b boat, bb rubber, bu build
d: d dock, dd ladder, ed rained
f: f fog, ff cliff, ph dolphin, gh laugh
g: g goose, gg egg, gu guard, gh ghost
h: h heron, wh who
j: j jug, g gem, ge large, dge bridge, dj adjust
k: k kiln, c canal, ck brick, ch anchor, cc soccer, que antique, q quay
l: l lock, ll bell, le little
m: m mud, mm hammer, mb comb, mn autumn
n: n newt, nn dinner, kn knot, gn gnome
ng: ng song, n sink
p: p plank, pp supper
r: r rope, rr parrot, wr wrist, rh rhyme
s: s sail, ss moss, c city, ce fence, se house, st castle, sc scent, ps psalm
t: t tent, tt kettle, ed jumped, d liked, bt doubt
v: v van, ve sleeve, vv skivvy
w: w web, wh wheel, u suit
y: y yard, i onion
z: z zigzag, zz buzz, s nose, se cheese, ze sneeze, ss scissors
sh: sh shed, ch chef, ti station, ci special, s sugar, ss pressure, si mansion
zh: s treasure, si vision, g beige
ch: ch chain, tch hatch, t picture
th: th moth
dh: th then, the breathe
ks: x wax
gz: x exam
kw: qu quilt
id: ed wanted, d hated
iz: es boxes, s houses
wu: o once, o_e one
a: a anchor, ai plait
e: e elbow, ea bread, ai said, a many, ie friend, eo leopard
i: i mist, y gym, e pretty, ui build, u busy, o women, ie sieve
o: o otter, a wasp, ou cough, o_e gone
u: u mud, o son, ou young, o_e some, oo flood, oe does
uu: oo wood, u push, oul could
ai: ai drain, ay day, a_e lake, a paper, ey they, ea steak, eigh eight, ei veil, aigh straight
ee: ee sheep, ea leaf, e me, y muddy, ie field, ey donkey, e_e these, i taxi, ei ceiling, i_e machine, eo people
igh: igh light, i_e tide, y_e type, y sky, ie tie, i tiger, eigh height, uy buy, ye dye
oa: oa toad, ow snow, o_e rope, o go, oe toe, ou shoulder, ough dough, ew sew
oo: oo tool, ew chew, u_e rule, ue blue, u truth, ou soup, o do, ui fruit, ough through, oe shoe, o_e move
yoo: u unicorn, u_e cube, ue rescue, ew few, eau beauty
ar: ar yard, a father, al calm, are are, ear heart
or: or north, aw saw, au haul, ore shore, al walk, a water, our four, oor door, augh caught, ough bought, oar board, ar warm
er: er fern, ir bird, ur burn, or word, ear earth, our journey, ere were
ow: ow powder, ou cloud, ough bough
oi: oi oil, oy boy
ear: ear beard, eer deer, ere here, ier pier
air: air repair, are care, ear wear, ere there, eir their
ure: ure pure, oor moor, our tour
schwa: er hammer, a about, or doctor, ar collar, o lemon, e kitten, ure picture, our harbour, u walrus, re metre, i pencil
`;

/** Spellings of a handful of words each. They are known to the engine; lists to choose from leave them out. */
export const rareInventory = `
b: pb cupboard
f: ffe giraffe
g: gue league
j: dg gadget, gi region, di soldier, gg suggest, dge bridge
k: qu mosquito, kh khaki, cch zucchini
l: el tunnel, al pedal, il pencil, lle gazelle, sl islet
m: mme programme
n: ne engine, nne tonne, dne wednesday, nd handsome, pn pneumatic, on iron
ng: ngue tongue, ngh dinghy, nd handkerchief
s: sw sword, sth asthma, z quartz
t: te chocolate, tte omelette, tw two, th thyme, pt receipt, cht yacht
v: f of
z: x xylophone, si business, zz puzzle
sh: ssi session, ce ocean, che moustache, shi cushion, sci conscious, chs fuchsia
zh: z azure, ge garage
ch: ti question, c cello
w: u suite
ts: zz pizza
ks: xc excellent, xe axe, xh exhibition
gz: xh exhaust
kw: ch choir, cqu acquire
a: al salmon, au laugh
e: ay says, ei leisure, u bury
i: a village, ia carriage, ei foreign, ai bargain, ee breeches, hi vehicle
o: ho honest, ow knowledge, au because, ach yacht
uu: o wolf
ai: au gauge, e cafe, et ballet, ae sundae, ee puree
ee: ay quay, ae algae, oe phoenix
igh: ay kayak, eye eye, is island, ais aisle, oi choir, ig signpost
oa: ot depot, oh oh, owe owe, eau plateau, ol folk, oo brooch, aoh pharaoh
oo: oeu manoeuvre, eu sleuth
yoo: ewe ewe, eue queue, iew view, eu feud, uu vacuum
ar: er clerk, au aunt, ah aha, arre bizarre
or: eor george, oure you're, awe awe, aur dinosaur, oa broad, oo floorboard
er: yr myrtle, olo colonel, err err, irr whirr, urr purr, eur amateur
ow: hou hour
oi: uoy buoy
ear: er hero, eir weird, ir souvenir
air: eyre they're, ar parent, aer aeroplane, ayer prayer, heir heir
ure: ur jury
schwa: oi tortoise, aur restaurant, ai mountain, ou famous, ough thorough, ur surprise, yr martyr, oar cupboard, ro iron, ah cheetah, her shepherd, y vinyl, eur chauffeur, ia parliament
`;
