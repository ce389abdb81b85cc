"""Reads {"name": planar diagram code} from standard input and gives, for each,
the Jones polynomial as {exponent in halves: coefficient} and the Alexander
polynomial as a list of coefficients from t^0 up with a positive first one, both
worked out by Regina. Run with regina-python."""
import json
import re
import sys

import regina


def jones(link):
    p = link.jones()
    return {str(e): int(str(p[e])) for e in range(p.minExp(), p.maxExp() + 1) if str(p[e]) != "0"}


def alexander(link):
    # HOMFLY at a = 1 is the Conway polynomial in z; then z = s - 1/s with s = sqrt(t).
    conway = {}
    for sign, coefficient, powers in re.findall(r"([+-]?) ?(\d*) ?((?:[xy](?:\^-?\d+)? ?)*)", str(link.homflyAZ())):
        if not coefficient and not powers:
            continue
        y = re.search(r"y(?:\^(-?\d+))?", powers)
        z = int(y.group(1) or 1) if y else 0
        conway[z] = conway.get(z, 0) + int(sign + (coefficient or "1"))
    out = {}
    for z, k in conway.items():
        if k == 0:
            continue
        assert z >= 0, "negative powers of z must cancel"
        power = {0: 1}
        for _ in range(z):
            step = {}
            for e, c in power.items():
                step[e + 1] = step.get(e + 1, 0) + c
                step[e - 1] = step.get(e - 1, 0) - c
            power = step
        for e, c in power.items():
            out[e] = out.get(e, 0) + k * c
    out = {e: c for e, c in out.items() if c}
    if not out:
        return []
    low, high = min(out), max(out)
    coefficients = [out.get(e, 0) for e in range(low, high + 1, 2)]
    return coefficients if coefficients[0] > 0 else [-c for c in coefficients]


answers = {}
for name, code in json.load(sys.stdin).items():
    link = regina.Link.fromDT(code["dt"]) if isinstance(code, dict) else regina.Link.fromPD(code)
    answers[name] = {"jones": jones(link), "alexander": alexander(link), "components": link.countComponents()}
json.dump(answers, sys.stdout)
