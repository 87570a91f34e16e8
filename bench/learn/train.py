"""Learns the model of beats from what hear.ts says of the songs of songs.ts: python3 bench/learn/train.py.

Dilated convolutions after Davies & Böck 2019, "Temporal convolutional networks for musical audio beat tracking",
most of them at a quarter of the frames (Ronneberger, Fischer & Brox 2015, "U-Net"), so that they reach far for little.
The same seed gives the same order of songs; sums on several cores differ in their last digits.
Writes src/core/song/model/weights.json and, for its test, check.json. Needs Debian's python3-torch.
"""

import base64
import glob
import json
import os
import sys
import time

import numpy as np
import torch
import torch.nn.functional as F
from torch import nn

folder = os.environ.get("LEARN", ".cache/learn")
out = os.environ.get("WEIGHTS", "src/core/song/model")
bands, level_steps, change_steps = 28, 28.0, 120.0
width = 32
early, slow, late = [1, 2], [1, 2, 4, 8, 16, 32, 64, 128], [1, 2]
# tempos that are told apart, in octaves from the slowest
slowest, tempo_steps, octaves = 45.0, 80, 2.4
minutes = float(os.environ.get("MINUTES", "25"))
torch.manual_seed(7)
rng = np.random.default_rng(7)


def read(base):
    with open(base + ".about") as file:
        about = json.load(file)
    with open(base + ".json") as file:
        truth = json.load(file)
    levels = np.fromfile(base + ".levels", dtype=np.uint8).reshape(-1, bands)
    changes = np.fromfile(base + ".changes", dtype=np.uint8).reshape(2, -1)
    return {"name": base, "about": about, "levels": levels, "changes": changes, **truth}


def resampled(rows, faster):
    """Rows at another speed: [time, channels]."""
    count = int(len(rows) / faster)
    place = np.minimum(np.arange(count) * faster, len(rows) - 1.001)
    low = place.astype(int)
    share = (place - low)[:, None].astype(np.float32)
    return rows[low] * (1 - share) + rows[low + 1] * share


def inputs(levels, changes):
    """As hear() of src/core/song/model/input.ts: levels [hops, bands] at a hundred a second, changes [frames, 2]."""
    padded = np.pad(levels, ((0, 0), (1, 1)), constant_values=-1)
    most = np.maximum(np.maximum(padded[:, :-2], padded[:, 1:-1]), padded[:, 2:])
    rises = np.zeros_like(levels)
    rises[2:] = np.maximum(0, levels[2:] - most[:-2])
    frames = min(len(levels) // 2, len(changes))
    even, odd = levels[0 : 2 * frames : 2], levels[1 : 2 * frames : 2]
    risen = rises[0 : 2 * frames : 2] + rises[1 : 2 * frames : 2]
    return np.concatenate([(even + odd) / 2, risen, changes[:frames]], axis=1).astype(np.float32)


def example(song, length, changed):
    """What is heard, what is true, which of it counts, and the tempo: [channels, length], [2, length] twice."""
    about = song["about"]
    levels = song["levels"].astype(np.float32) / level_steps
    frame_rate = about["rate"] / 2
    start = about["start"] + 0.5 / about["rate"]
    frames = len(levels) // 2
    place = (start + np.arange(frames) / frame_rate - about["tonalStart"]) * about["tonalRate"]
    tonal = np.arange(song["changes"].shape[1])
    changes = np.stack([np.interp(place, tonal, row / change_steps) for row in song["changes"]], axis=1)
    changes = changes.astype(np.float32)
    faster = 1.0
    if changed:
        faster = float(np.exp(rng.uniform(-0.18, 0.18)))
        tilt = rng.normal(0, 0.25) * np.linspace(-1, 1, bands) + rng.normal(0, 0.35) + rng.normal(0, 0.1, bands)
        levels = np.log1p(np.expm1(levels) * np.exp(tilt.astype(np.float32)))
        if rng.random() < 0.25:
            noise = np.abs(rng.normal(0, rng.uniform(0.02, 0.6), levels.shape)).astype(np.float32)
            levels = np.log1p(np.expm1(levels) + noise)
        if rng.random() < 0.3:
            # Music that lacks some of its pitches: a thin speaker, a part that pauses.
            first, wide = int(rng.integers(0, bands)), int(rng.integers(3, 11))
            levels[:, first : first + wide] = 0
        levels = resampled(levels, faster)
        changes = resampled(changes, faster)
    heard = inputs(levels, changes)
    count = len(heard)
    truth = np.zeros((2, count), np.float32)
    counts = np.ones((2, count), np.float32)
    for row, times in enumerate([song["beats"], song["downbeats"]]):
        if times is None:
            counts[row] = 0
            continue
        at = np.round((np.array(times) - start) / faster * frame_rate).astype(int)
        for step, value in ((-1, 0.5), (1, 0.5), (0, 1.0)):
            near = at + step
            near = near[(near >= 0) & (near < count)]
            truth[row, near] = np.maximum(truth[row, near], value)
    first = int(rng.integers(0, max(1, count - length + 1))) if changed else 0
    piece = slice(first, first + length)
    heard, truth, counts = heard[piece].T, truth[:, piece], counts[:, piece]
    lack = length - heard.shape[1]
    if lack > 0:
        heard = np.pad(heard, ((0, 0), (0, lack)))
        truth, counts = np.pad(truth, ((0, 0), (0, lack))), np.pad(counts, ((0, 0), (0, lack)))
    tempo = np.float32(60 * faster / np.median(np.diff(song["beats"])))
    return heard, truth, counts, tempo


class Convolution(nn.Module):
    """A convolution over time of rows [channels, songs, frames], as one product of matrices: quick on processors."""

    def __init__(self, heard, told, taps, dilation=1, small=None):
        super().__init__()
        deviation = small if small is not None else (2.0 / (heard * taps)) ** 0.5
        self.weight = nn.Parameter(torch.randn(told, heard, taps) * deviation)
        self.bias = nn.Parameter(torch.zeros(told))
        self.reach = dilation

    def forward(self, rows):
        told, heard, taps = self.weight.shape
        _, songs, frames = rows.shape
        if taps > 1:
            padded = F.pad(rows, (self.reach, self.reach))
            rows = torch.stack([padded[..., tap * self.reach : tap * self.reach + frames] for tap in range(taps)], 1)
        flat = rows.reshape(heard * taps, songs * frames)
        return (self.weight.reshape(told, -1) @ flat + self.bias[:, None]).reshape(told, songs, frames)


class Block(nn.Module):
    def __init__(self, dilation):
        super().__init__()
        self.wide = Convolution(width, width, 3, dilation)
        self.mix = Convolution(width, width, 1, small=0.05)

    def forward(self, rows):
        return rows + self.mix(F.dropout(F.relu(self.wide(rows)), 0.15, self.training))


def folded(rows):
    """Two frames as one with twice the channels: [channels, songs, frames] to [2 channels, songs, frames / 2]."""
    channels, songs, frames = rows.shape
    return rows.reshape(channels, songs, frames // 2, 2).permute(3, 0, 1, 2).reshape(2 * channels, songs, frames // 2)


def unfolded(rows):
    channels, songs, frames = rows.shape
    return rows.reshape(2, channels // 2, songs, frames).permute(1, 2, 3, 0).reshape(channels // 2, songs, 2 * frames)


class Model(nn.Module):
    def __init__(self):
        super().__init__()
        self.front = Convolution(2 * (2 * bands + 2), width, 1)
        self.early = nn.ModuleList([Block(dilation) for dilation in early])
        self.down = Convolution(2 * width, width, 1)
        self.slow = nn.ModuleList([Block(dilation) for dilation in slow])
        self.tempo = Convolution(width * len(early + slow), tempo_steps, 1, small=0.01)
        self.up = Convolution(width, 2 * width, 1, small=0.05)
        self.level = Convolution(tempo_steps, width, 1, small=0.5)
        self.late = nn.ModuleList([Block(dilation) for dilation in late])
        self.heads = Convolution(width, 4, 1)

    def forward(self, heard):
        """From [songs, channels, frames] to [songs, 2, frames] and, for the whole song, [songs, tempos]."""
        rows = F.relu(self.front(folded(heard.transpose(0, 1))))
        means = []
        for block in self.early:
            rows = block(rows)
            means.append(F.relu(rows).mean(2))
        far = F.relu(self.down(folded(rows)))
        for block in self.slow:
            far = block(far)
            means.append(F.relu(far).mean(2))
        pooled = F.dropout(torch.cat(means, 0), 0.2, self.training)
        tempos = self.tempo(pooled[:, :, None])
        rows = rows + unfolded(self.up(F.relu(far))) + self.level(F.softmax(tempos, 0))
        for block in self.late:
            rows = block(rows)
        return unfolded(self.heads(F.relu(rows))).transpose(0, 1), tempos[:, :, 0].T


def loss_of(model, heard, truth, counts, tempo):
    beats, tempos = model(heard)
    lost = F.binary_cross_entropy_with_logits(beats, truth, reduction="none")
    place = torch.log2(tempo / slowest) / octaves * tempo_steps
    near = torch.exp(-0.5 * ((torch.arange(tempo_steps)[None] - place[:, None]) / 1.2) ** 2) + 1e-9
    level = -(near / near.sum(1, keepdim=True) * F.log_softmax(tempos, 1)).sum(1).mean()
    return (lost * counts).sum() / counts.sum() + 0.02 * level


def coded(weight, bias, dilation):
    """Weights as signed bytes with a scale for each output; biases as they are."""
    weight = weight.detach().numpy()
    scale = np.maximum(np.abs(weight).max(axis=(1, 2)), 1e-9) / 127
    rounded = lambda values: [float(f"{value:.6g}") for value in values]
    return {
        "out": weight.shape[0],
        "in": weight.shape[1],
        "taps": weight.shape[2],
        "dilation": dilation,
        "scale": rounded(scale),
        "bias": rounded(bias.detach().numpy()),
        "weights": base64.b64encode(np.round(weight / scale[:, None, None]).astype(np.int8).tobytes()).decode(),
    }


def exported(model, mean, spread):
    """What ships: that levels are counted from their mean in units of their spread is part of the first layer."""
    twice_mean, twice_spread = mean.repeat(2), spread.repeat(2)
    with torch.no_grad():
        front = model.front.weight / twice_spread[None, :, None]
        bias = model.front.bias - (model.front.weight * (twice_mean / twice_spread)[None, :, None]).sum((1, 2))
    one = lambda layer: coded(layer.weight, layer.bias, layer.reach)
    blocks = lambda all: [{"wide": one(block.wide), "mix": one(block.mix)} for block in all]
    return {
        "by": "bench/learn/train.py",
        "slowest": slowest,
        "octaves": octaves,
        "front": coded(front, bias, 1),
        "early": blocks(model.early),
        "down": one(model.down),
        "slow": blocks(model.slow),
        "tempo": one(model.tempo),
        "up": one(model.up),
        "level": one(model.level),
        "late": blocks(model.late),
        "heads": one(model.heads),
    }


def decoded(layer):
    coded = np.frombuffer(base64.b64decode(layer["weights"]), np.int8)
    shape = (layer["out"], layer["in"], layer["taps"])
    weight = coded.reshape(shape).astype(np.float64) * np.array(layer["scale"])[:, None, None]
    return weight, np.array(layer["bias"]), layer["dilation"]


def convolved(layer, rows):
    weight, bias, dilation = decoded(layer)
    told, _, taps = weight.shape
    reach = dilation * (taps - 1) // 2
    padded = np.pad(rows, ((0, 0), (reach, reach)))
    count = rows.shape[1]
    out = np.repeat(bias[:, None], count, 1)
    for tap in range(taps):
        out += weight[:, :, tap] @ padded[:, tap * dilation : tap * dilation + count]
    return out


def check(told, frames=160):
    """What these layers make of a made-up song, reckoned here, for network.test.ts to compare with."""
    channel, frame = np.mgrid[0 : 2 * bands + 2, 0:frames]
    rows = np.abs(np.sin(0.7 * channel + 0.23 * frame) * np.cos(0.05 * frame))
    relu = lambda values: np.maximum(0, values)
    fold = lambda values: np.concatenate([values[:, 0::2], values[:, 1::2]])
    unfold = lambda values: np.stack(np.split(values, 2), 2).reshape(len(values) // 2, -1)
    means = []

    def stacked(blocks, values):
        for block in blocks:
            values = values + convolved(block["mix"], relu(convolved(block["wide"], values)))
            means.append(relu(values).mean(1))
        return values

    rows = stacked(told["early"], relu(convolved(told["front"], fold(rows))))
    far = stacked(told["slow"], relu(convolved(told["down"], fold(rows))))
    tempos = convolved(told["tempo"], np.concatenate(means)[:, None])
    tempos = tempos - tempos.max() - np.log(np.exp(tempos - tempos.max()).sum())
    rows = rows + unfold(convolved(told["up"], relu(far))) + convolved(told["level"], np.exp(tempos))
    rows = stacked(told["late"], rows)
    beats = 1 / (1 + np.exp(-unfold(convolved(told["heads"], relu(rows)))))
    rounded = lambda values: [float(f"{value:.6g}") for value in values]
    return {"frames": frames, "beat": rounded(beats[0]), "first": rounded(beats[1]), "tempos": rounded(tempos[:, 0])}


def written(name, told):
    with open(os.path.join(out, name), "w") as file:
        json.dump(told, file)


def main():
    names = sorted(path[: -len(".levels")] for path in glob.glob(folder + "/*.levels"))
    songs = [read(name) for name in names]
    held = [song for index, song in enumerate(songs) if index % 12 == 0]
    learned = [song for index, song in enumerate(songs) if index % 12 != 0]
    print(len(learned), "songs learned from,", len(held), "held out to see when to stop", flush=True)
    length, batch = 2048, 8
    sample = np.concatenate([example(song, length, False)[0] for song in learned[::5]], axis=1)
    mean = torch.tensor(sample.mean(axis=1))
    spread = torch.tensor(sample.std(axis=1) + 1e-3)
    model = Model()
    if os.path.exists(folder + "/state.pt"):
        model.load_state_dict(torch.load(folder + "/state.pt"), strict=False)
        print("going on", flush=True)
    proof = [[torch.tensor(np.stack(part)) for part in zip(*[example(song, length, False) for song in held[at : at + 8]])] for at in range(0, len(held), 8)]
    best_rate = float(os.environ.get("RATE", "0.003"))
    optimiser = torch.optim.AdamW(model.parameters(), lr=best_rate, weight_decay=0.01)
    began = time.time()
    seen = 0
    while True:
        order = rng.permutation(len(learned))
        total = 0.0
        model.train()
        for at in range(0, len(order) - batch + 1, batch):
            share = min(1.0, (time.time() - began) / 60 / minutes)
            rate = best_rate * min(1.0, seen / 100 + 0.1) * 0.5 * (1 + np.cos(np.pi * share)) + 1e-5
            for group in optimiser.param_groups:
                group["lr"] = rate
            parts = [example(learned[index], length, True) for index in order[at : at + batch]]
            heard, truth, counts, tempo = (torch.tensor(np.stack(part)) for part in zip(*parts))
            loss = loss_of(model, (heard - mean[None, :, None]) / spread[None, :, None], truth, counts, tempo)
            optimiser.zero_grad()
            loss.backward()
            nn.utils.clip_grad_norm_(model.parameters(), 1.0)
            optimiser.step()
            total += float(loss)
            seen += 1
            if share >= 1:
                break
        model.eval()
        with torch.no_grad():
            lost = [float(loss_of(model, (heard - mean[None, :, None]) / spread[None, :, None], truth, counts, tempo)) for heard, truth, counts, tempo in proof]
        print(f"{(time.time() - began) / 60:.1f} min: learned {total / max(1, len(order) // batch):.4f}, held out {np.mean(lost):.4f}", flush=True)
        torch.save(model.state_dict(), folder + "/state.pt")
        told = exported(model, mean, spread)
        written("weights.json", told)
        written("check.json", check(told))
        if time.time() - began >= 60 * minutes:
            break


main()
