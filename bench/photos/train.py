"""Teaches the network that sees things in photos, from rendered pictures and their label pictures.

Run beside a folder made by make.ts:  python3 train.py FOLDER OUT.onnx [SECONDS] [FOLDER of photos others made, with truth.json]
It goes on from OUT.onnx.pt where that is there. HOLD=3 keeps every third of those photos for checking; RATE is the step.
Needs Debian's python3-torch, python3-onnx and python3-pil; no graphics card. The product itself needs none of this, only OUT.onnx.
"""
import copy, json, math, os, random, sys, time, io
import numpy as np
import onnx, onnx.helper, onnx.numpy_helper
import torch
from torch import nn
from torch.nn import functional as F
from PIL import Image, ImageFilter

W, H = 512, 384
CROP = 320
HOLD = int(os.environ.get('HOLD', 0))
BEST = float(os.environ.get('RATE', 2.5e-3))
CLASSES = 6  # ground, thing, clutter, plate, ink, sheet


def conv(i, o, stride=1, dilation=1):
    return nn.Sequential(nn.Conv2d(i, o, 3, stride, dilation, dilation=dilation, bias=False), nn.BatchNorm2d(o), nn.ReLU(inplace=True))


def again(n, dilation):
    """Something added to what is there; little at first."""
    norm = nn.BatchNorm2d(n)
    nn.init.constant_(norm.weight, 0.1)
    return nn.Sequential(nn.Conv2d(n, n, 3, 1, dilation, dilation=dilation, bias=False), norm, nn.ReLU(inplace=True))


class Seeing(nn.Module):
    """Half the picture's size out: the middle of each thing, what each pixel is, how large the thing is."""

    def __init__(self):
        super().__init__()
        self.a = nn.Sequential(conv(3, 16, 2), conv(16, 16))
        self.b = nn.Sequential(conv(16, 32, 2), conv(32, 32), conv(32, 32))
        self.c = nn.Sequential(conv(32, 64, 2), conv(64, 64), conv(64, 64))
        self.d = nn.Sequential(conv(64, 96, 2), conv(96, 96, 1, 2), conv(96, 96, 1, 4), conv(96, 96))
        # What lies far around decides what is pattern and what is thing.
        self.more = nn.ModuleList([again(96, n) for n in (2, 4, 1, 8, 4, 2, 1)])
        self.uc, self.fc = nn.Conv2d(96, 64, 1), conv(64, 64)
        self.mid = nn.ModuleList([again(64, n) for n in (1, 2, 1)])
        self.ub, self.fb = nn.Conv2d(64, 32, 1), conv(32, 32)
        self.near = nn.ModuleList([again(32, 1) for _ in range(3)])
        self.ua, self.fa = nn.Conv2d(32, 16, 1), conv(16, 24)
        self.head = nn.Conv2d(24, 2 + CLASSES, 1)
        nn.init.constant_(self.head.bias[0], -4.0)

    def forward(self, x):
        up = lambda t: F.interpolate(t, scale_factor=2.0, mode='nearest')
        a = self.a(x)
        b = self.b(a)
        c = self.c(b)
        d = self.d(c)
        for m in self.more:
            d = d + m(d)
        c = self.fc(c + up(self.uc(d)))
        for m in self.mid:
            c = c + m(c)
        b = self.fb(b + up(self.ub(c)))
        for m in self.near:
            b = b + m(b)
        a = self.fa(a + up(self.ua(b)))
        return self.head(a)


def gather(folder):
    out = []
    for name in sorted(os.listdir(folder)):
        if not name.endswith('.json') or name == 'truth.json':
            continue
        stem = os.path.join(folder, name[:-5])
        try:
            photo = np.asarray(Image.open(stem + '.png').convert('RGB').resize((W, H), Image.BOX))
            label = np.asarray(Image.open(stem + '-is.png').convert('RGB').resize((W, H), Image.NEAREST))
        except OSError:
            continue
        klass = np.minimum(5, np.round(label[..., 0] / 30)).astype(np.uint8)
        thing = (np.round(label[..., 1] / 16) + 16 * np.round(label[..., 2] / 16)).astype(np.int16)
        thing[klass != 1] = 0
        # Of what stands up several faces are seen: half a face more is no other thing, so nothing is laid on or beside it.
        told = json.load(open(stem + '.json'))
        flat = told.get('kind') not in ('cubes', 'bricks', 'cones')
        # What is seen least well is shown more often.
        often = 2.0 if told.get('structure') in ('frame', 'frames', 'rings', 'eggbox', 'plates', 'towers') else 1.0 if flat else 1.6
        out.append((photo, klass, thing, flat, often))
    return out


def gather_real(folder):
    """Photos of which only the middles and sizes of things are known: what else they show is left out of the lesson."""
    out = []
    truth = json.load(open(os.path.join(folder, 'truth.json')))
    for i, t in enumerate(truth):
        # Every third is kept for checking, where one says so.
        if HOLD and i % HOLD == 0:
            continue
        photo = Image.open(os.path.join(folder, t['file'])).convert('RGB')
        k = W / photo.width
        photo = np.asarray(photo.resize((W, H), Image.BOX))
        out.append((photo, None, [(q['x'] * k, q['y'] * k, q['r'] * k) for q in t['things']], t['kind'] != 'cubes', 1.0))
    return out


def phone(img, rng):
    """What a phone does to a picture; float 0..1 in and out."""
    h, w, _ = img.shape
    if rng.random() < 0.3:
        img = img[..., rng.permutation(3)] if rng.random() < 0.5 else img
        hsvish = img.mean(2, keepdims=True)
        img = hsvish + (img - hsvish) * rng.uniform(0.5, 1.4)
    img = np.clip(img, 0, 1) ** rng.uniform(0.7, 1.4)
    tint = 1 + rng.uniform(-0.14, 0.14, 3).astype(np.float32)
    if rng.random() < 0.3:
        tint = np.array([1.15, 1.0, rng.uniform(0.55, 0.9)], np.float32)
    img = img * tint
    yy, xx = np.mgrid[0:h, 0:w].astype(np.float32)
    if rng.random() < 0.35:
        cx, cy, r = rng.uniform(0, w), rng.uniform(0, h), rng.uniform(0.5, 1.4) * w
        img = img * (1 - rng.uniform(0.2, 0.75) * np.clip(np.hypot(xx - cx, yy - cy) / r, 0, 1)[..., None] ** 2)
    if rng.random() < 0.12:
        cx, cy, r = rng.uniform(0, w), rng.uniform(0, h), rng.uniform(0.04, 0.14) * w
        d = ((xx - cx) / (r * rng.uniform(1, 2))) ** 2 + ((yy - cy) / r) ** 2
        img = img + rng.uniform(0.4, 1.2) * np.exp(-d)[..., None]
    img = img * (rng.uniform(0.38, 0.6) / max(0.05, img.mean())) if rng.random() < 0.75 else img * rng.uniform(0.5, 1.3)
    img = np.clip(img, 0, 1)
    p = Image.fromarray((img * 255).astype(np.uint8))
    if rng.random() < 0.3:
        p = p.filter(ImageFilter.GaussianBlur(rng.uniform(0.3, 1.4)))
    if rng.random() < 0.18:
        n = int(rng.integers(2, 8))
        a = np.asarray(p).astype(np.float32)
        dx, dy = rng.uniform(-1, 1), rng.uniform(-1, 1)
        moved = [np.roll(a, (round(dy * i), round(dx * i)), (0, 1)) for i in range(-n // 2, n // 2 + 1)]
        p = Image.fromarray(np.mean(moved, 0).astype(np.uint8))
    if rng.random() < 0.45:
        a = np.asarray(p) + rng.uniform(1, 11) * rng.standard_normal((h, w, 3 if rng.random() < 0.5 else 1), np.float32)
        p = Image.fromarray(np.clip(a, 0, 255).astype(np.uint8))
    if rng.random() < 0.4:
        b = io.BytesIO()
        p.save(b, 'JPEG', quality=int(rng.integers(30, 80)))
        p = Image.open(b)
    return np.asarray(p).astype(np.float32) / 255


def stamp(heat, size, weight, x, y, r):
    """The middle of one thing at half size, as a small hill."""
    s = max(1.0, 0.34 * r)
    q = int(math.ceil(3 * s))
    x0, x1, y0, y1 = int(x) - q, int(x) + q + 1, int(y) - q, int(y) + q + 1
    h, w = heat.shape
    X0, X1, Y0, Y1 = max(0, x0), min(w, x1), max(0, y0), min(h, y1)
    if X0 >= X1 or Y0 >= Y1:
        return
    yy, xx = np.mgrid[Y0:Y1, X0:X1]
    g = np.exp(-((xx + 0.5 - x) ** 2 + (yy + 0.5 - y) ** 2) / (2 * s * s))
    peak = g.max()
    if peak > 0.5:
        g = g / peak
    take = g > heat[Y0:Y1, X0:X1]
    heat[Y0:Y1, X0:X1][take] = g[take]
    near = take & (g > 0.4)
    size[Y0:Y1, X0:X1][near] = math.log(max(1.0, r) / 8)
    weight[Y0:Y1, X0:X1][near] = 1


def pieces(item):
    """The things of a picture cut out: those whole and not much hidden."""
    photo, klass, thing, flat, _ = item
    out = []
    if not flat:
        return out
    for i in np.unique(thing[thing > 0]):
        ys, xs = np.nonzero(thing == i)
        if len(ys) < 60 or ys.min() == 0 or xs.min() == 0 or ys.max() == H - 1 or xs.max() == W - 1:
            continue
        y0, y1, x0, x1 = ys.min(), ys.max() + 1, xs.min(), xs.max() + 1
        if max(y1 - y0, x1 - x0) > 150:
            continue
        out.append((photo[y0:y1, x0:x1].copy(), thing[y0:y1, x0:x1] == i, len(ys)))
    if not out:
        return out
    usual = np.median([n for _, _, n in out])
    return [o for o in out if 0.8 * usual <= o[2] <= 1.5 * usual]


def middles(thing):
    """Number, middle and pixels of each thing of a label picture."""
    ys, xs = np.nonzero(thing)
    ids = thing[ys, xs]
    n = np.bincount(ids)
    x, y = np.bincount(ids, xs), np.bincount(ids, ys)
    return [(int(i), x[i] / n[i], y[i] / n[i], int(n[i])) for i in np.nonzero(n)[0]]


def strew(item, own, bank, rng):
    """Lays more things into a picture, its own or another's, some of them on others."""
    photo, klass, thing, _, often = item
    known = klass is not None
    same = len(own) > 0 and rng.random() < 0.5
    choice = own if same else bank[rng.integers(len(bank))]
    photo = photo.copy()
    if known:
        klass, thing = klass.copy(), thing.copy()
        there = middles(thing)
        visible = {i: n for i, _, _, n in there}
        whole = dict(visible)
        places = [(x, y, math.sqrt(n / math.pi)) for _, x, y, n in there]
        top = max(visible, default=0)
    else:
        thing = list(thing)
        klass = np.full((H, W), 255, np.uint8)
        places = list(thing)
    radius = math.sqrt(np.median([n for _, _, n in choice]) / math.pi)
    if same:
        size = 1.0
    elif places:
        size = float(np.median([r for _, _, r in places])) / radius * rng.uniform(0.85, 1.2)
    else:
        size = rng.uniform(0.7, 1.3)
    size = float(np.clip(size, 0.4, 2.0))
    light = 1.0 if same else rng.uniform(0.75, 1.2)
    shade, sx, sy = rng.uniform(0, 0.6), rng.uniform(-0.35, 0.35), rng.uniform(-0.35, 0.35)
    onto = rng.uniform(0.2, 0.9)
    for _ in range(int(rng.integers(1, 9))):
        rgb, mask, n = choice[rng.integers(len(choice))]
        k = size * rng.uniform(0.93, 1.07)
        h, w = max(4, round(mask.shape[0] * k)), max(4, round(mask.shape[1] * k))
        rgb = np.asarray(Image.fromarray(rgb).resize((w, h), Image.BILINEAR))
        m = Image.fromarray(mask.astype(np.uint8) * 255).resize((w, h), Image.BILINEAR)
        t = int(rng.integers(0, 4))
        rgb, a = np.rot90(rgb, t), np.rot90(np.asarray(m), t).astype(np.float32) / 255
        h, w = a.shape
        hard = a > 0.5
        r = math.sqrt(max(1, hard.sum()) / math.pi)
        if places and rng.random() < onto:
            px, py, pr = places[rng.integers(len(places))]
            # Half of those that lie on others hide about half of them.
            far = (rng.uniform(0.38, 0.66) if rng.random() < 0.5 else rng.uniform(0.6, 1.12)) * (pr + r)
            turn = rng.uniform(0, 2 * math.pi)
            x, y = px + far * math.cos(turn), py + far * math.sin(turn)
        else:
            x, y = rng.uniform(0, W), rng.uniform(0, H)
        x0, y0 = round(x - w / 2), round(y - h / 2)
        if x0 < 2 or y0 < 2 or x0 + w > W - 2 or y0 + h > H - 2:
            continue
        here = (slice(y0, y0 + h), slice(x0, x0 + w))
        if known:
            # Nothing is hidden so far that nobody could tell it is there; nothing lies on a cup.
            under = np.bincount(thing[here][hard])
            hidden = {int(i): int(under[i]) for i in np.nonzero(under)[0] if i}
            if any(visible[i] - n <= 0.38 * whole[i] for i, n in hidden.items()) or (klass[here][hard] == 2).mean() > 0.05:
                continue
            for i, n in hidden.items():
                visible[i] -= n
        elif any(math.hypot(px - x, py - y) < 0.75 * max(pr, r) for px, py, pr in places):
            continue
        # Its shadow first, softly.
        q = int(math.ceil(r))
        big = np.zeros((h + 4 * q, w + 4 * q), np.uint8)
        oy, ox = 2 * q + round(sy * r), 2 * q + round(sx * r)
        big[oy:oy + h, ox:ox + w] = a * 255
        soft = np.asarray(Image.fromarray(big).filter(ImageFilter.GaussianBlur(max(0.6, 0.14 * r)))).astype(np.float32) / 255
        Y0, X0 = y0 - 2 * q, x0 - 2 * q
        ya, xa, yb, xb = max(0, Y0), max(0, X0), min(H, Y0 + soft.shape[0]), min(W, X0 + soft.shape[1])
        photo[ya:yb, xa:xb] = photo[ya:yb, xa:xb] * (1 - shade * soft[ya - Y0:yb - Y0, xa - X0:xb - X0, None])
        photo[here] = np.minimum(255, photo[here] * (1 - a[..., None]) + rgb * (light * a[..., None]))
        places.append((x, y, r))
        klass[here][hard] = 1
        if known:
            top += 1
            thing[here][hard] = top
            whole[top] = visible[top] = int(hard.sum())
        else:
            ys, xs = np.nonzero(hard)
            thing.append((x0 + xs.mean() + 0.5, y0 + ys.mean() + 0.5, r))
    return photo, klass, thing, True, often


def cut(item, rng, own=(), bank=()):
    crop = CROP
    if len(bank) and item[3] and rng.random() < (0.45 if item[4] < 2 else 0.2):
        item = strew(item, own, bank, rng)
    photo, klass, thing, *_ = item
    k = float(np.exp(rng.uniform(np.log(0.6), np.log(1.7))))
    need = min(int(crop / k), H)
    k = crop / need
    x0, y0 = rng.integers(0, W - need + 1), rng.integers(0, H - need + 1)
    box = (x0, y0, x0 + need, y0 + need)
    img = np.asarray(Image.fromarray(photo).resize((crop, crop), Image.BILINEAR if k >= 1 else Image.BOX, box=box)).astype(np.float32) / 255
    half = crop // 2
    heat, size, weight = (np.zeros((half, half), np.float32) for _ in range(3))
    known = not isinstance(thing, list)
    if klass is not None:
        kl = np.asarray(Image.fromarray(klass).resize((half, half), Image.NEAREST, box=box)).astype(np.int64)
        kl[kl == 255] = -1
    else:
        kl = np.full((half, half), -1, np.int64)
    if known:
        th = thing[y0:y0 + need, x0:x0 + need]
        spots = [((x + 0.5) * k, (y + 0.5) * k, math.sqrt(n / math.pi) * k) for _, x, y, n in middles(th) if n >= 14]
    else:
        spots = [((x - x0) * k, (y - y0) * k, r * k) for x, y, r in thing]
    for x, y, r in spots:
        stamp(heat, size, weight, x / 2, y / 2, r / 2)
    img = phone(img, rng)
    turn = int(rng.integers(0, 4))
    maps = [np.rot90(m, turn) for m in (img, heat, size, weight, kl)]
    if rng.random() < 0.5:
        maps = [m[:, ::-1] for m in maps]
    img, heat, size, weight, kl = (np.ascontiguousarray(m) for m in maps)
    return img.transpose(2, 0, 1).copy(), heat, size, weight, kl


class Cuts(torch.utils.data.IterableDataset):
    def __init__(self, items, real, seed):
        self.items, self.real, self.seed = items, real, seed
        self.own = [pieces(i) for i in items]
        self.bank = [p for p in self.own if len(p) > 0]
        often = np.cumsum([i[4] for i in items])
        self.often = often / often[-1]

    def __iter__(self):
        info = torch.utils.data.get_worker_info()
        rng = np.random.default_rng(self.seed + (info.id if info else 0))
        while True:
            if self.real and rng.random() < 0.3:
                yield cut(self.real[rng.integers(len(self.real))], rng, bank=self.bank)
            else:
                i = int(np.searchsorted(self.often, rng.random()))
                yield cut(self.items[i], rng, self.own[i], self.bank)


def loss_of(out, heat, size, weight, kl):
    p = torch.sigmoid(out[:, 0]).clamp(1e-4, 1 - 1e-4)
    top = (heat > 0.97).float()
    n = top.sum().clamp(min=4)
    focal = -(top * (1 - p) ** 2 * p.log() + (1 - top) * (1 - heat) ** 4 * p ** 2 * (1 - p).log()).sum() / n
    big = ((out[:, 1] - size).abs() * weight).sum() / weight.sum().clamp(min=1)
    what = F.cross_entropy(out[:, 2:], kl, ignore_index=-1, weight=torch.tensor([1.0, 1.5, 2.0, 1.2, 2.0, 1.2])) if (kl >= 0).any() else 0
    return focal, big, what


def main():
    folder, to = sys.argv[1], sys.argv[2]
    seconds = float(sys.argv[3]) if len(sys.argv) > 3 else 1500
    torch.manual_seed(1)
    torch.set_num_threads(2)
    net = Seeing()
    if os.path.exists(to + '.pt'):
        net.load_state_dict(torch.load(to + '.pt'), strict=False)
        print('going on from', to + '.pt')
    real = gather_real(sys.argv[4]) if len(sys.argv) > 4 else []
    opt = torch.optim.AdamW(net.parameters(), lr=2e-3, weight_decay=1e-4)
    net = net.to(memory_format=torch.channels_last)
    # The mean of the last thousand steps or so is what is kept.
    mean = copy.deepcopy(net)
    start, step, shown = time.time(), 0, [0, 0, 0]
    while time.time() - start < seconds:
        items = gather(folder)
        print(len(items), 'pictures', flush=True)
        loader = iter(torch.utils.data.DataLoader(Cuts(items, real, int(time.time())), batch_size=8, num_workers=1))
        until = time.time() + 900
        while time.time() < min(until, start + seconds):
            done = (time.time() - start) / seconds
            lr = BEST * min(1, (step + 1) / 100) * (0.5 + 0.5 * math.cos(math.pi * min(1, done))) + 2e-5
            for g in opt.param_groups:
                g['lr'] = lr
            x, heat, size, weight, kl = next(loader)
            net.train()
            focal, big, what = loss_of(net(x.contiguous(memory_format=torch.channels_last)), heat, size, weight, kl)
            opt.zero_grad()
            (focal + 0.5 * big + 1.5 * what).backward()
            nn.utils.clip_grad_norm_(net.parameters(), 5)
            opt.step()
            keep = min(0.999, (step + 1) / (step + 10))
            with torch.no_grad():
                for a, b in zip(mean.state_dict().values(), net.state_dict().values()):
                    a.copy_(a * keep + b * (1 - keep) if a.dtype.is_floating_point else b)
            for i, v in enumerate((focal, big, what)):
                shown[i] += float(v)
            step += 1
            if step % 100 == 0:
                print(step, f'{time.time() - start:.0f}s', *(f'{v / 100:.3f}' for v in shown), flush=True)
                shown = [0, 0, 0]
                save(mean, to)
        del loader
    save(mean, to)


def save(net, to):
    net.eval()
    torch.save(net.state_dict(), to + '.pt')
    x = torch.zeros(1, 3, H, W)
    torch.onnx.export(net, x, to, opset_version=12, input_names=['x'], output_names=['y'], dynamic_axes={'x': {2: 'h', 3: 'w'}, 'y': {2: 'h', 3: 'w'}})
    halve(to)


def halve(path):
    """Weights are kept in two bytes each, and are as they were when the file is opened: half a thousandth of each at most is lost."""
    model = onnx.load(path)
    graph = model.graph
    kept, casts = [], []
    for w in graph.initializer:
        a = onnx.numpy_helper.to_array(w)
        if a.dtype != np.float32 or a.size < 64:
            kept.append(w)
            continue
        kept.append(onnx.numpy_helper.from_array(a.astype(np.float16), w.name + '.half'))
        casts.append(onnx.helper.make_node('Cast', [w.name + '.half'], [w.name], to=onnx.TensorProto.FLOAT))
    nodes = [*casts, *graph.node]
    for field, values in ((graph.initializer, kept), (graph.node, nodes)):
        copies = [copy.deepcopy(v) for v in values]
        del field[:]
        field.extend(copies)
    onnx.save(model, path)


if __name__ == '__main__':
    main()
