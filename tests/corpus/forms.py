"""Lines made from a grammar: forms × amounts × names, drawn by a fixed seed.

What each line comes to is worked out from the sizes of the units and the weights of a cup here, not by the reader.
"""

from __future__ import annotations

import random

#: Names, with what they are in the catalogue and the weight of a cup of it, g (USDA SR Legacy portions).
POURED = {
    "red wine": ("red_wine", 235.2),
    "water": ("water", 236.8),
    "chicken stock": ("chicken_stock_own", 240.0),
    "beef stock": ("beef_stock_own", 240.0),
    "milk": ("milk", 244.0),
    "buttermilk": ("buttermilk", 245.0),
    "orange juice": ("orange_juice", 249.0),
    "passata": ("tomato_sauce", 245.0),
    "honey": ("honey", 339.0),
    "double cream": ("cream_heavy", 240.0),
    "soy sauce": ("soy_sauce", 256.0),
    "flour": ("flour", 125.0),
    "cornflour": ("corn_starch", 128.0),
    "dry cider": ("dry_cider", 238.4),
    "stout": ("stout", 240.8),
}
#: What is weighed.
WEIGHED = {
    "beef shin": "beef_shin",
    "pork shoulder": "pork_shoulder",
    "lamb neck": "lamb_neck",
    "oxtail": "oxtail",
    "carrots": "carrot",
    "celeriac": "celeriac",
    "shallots": "shallot",
    "streaky bacon": "bacon",
    "unsalted butter": "butter",
    "brown mushrooms": "brown_mushroom",
    "prunes": "prunes",
    "tomato paste": "tomato_paste",
    "wild boar": "boar",
    "parsnips": "parsnip",
}
#: Volumes in cups, by how they are written.
VOLUMES = {
    "2 cups": 2.0,
    "1/2 cup": 0.5,
    "a cup and a half": 1.5,
    "three quarters of a cup": 0.75,
    "1 pint": 2.0,
    "half a pint": 1.0,
    "1 ½ pints": 3.0,
    "two and a half cups": 2.5,
    "1 cup plus 2 tbsp": 1.125,
    "3 tbsp": 0.1875,
    "250 ml": 250 / 236.588,
    "1 l 200 ml": 1200 / 236.588,
    "0,75 l": 750 / 236.588,
    "4 dl": 400 / 236.588,
    "8 fl oz": 1.0,
    "two thirds of a pint": 4 / 3,
    "a quart": 4.0,
}
#: Weights, g.
WEIGHTS = {
    "1 lb 6 oz": 623.7,
    "2 kg 300 g": 2300.0,
    "half a kilo": 500.0,
    "a pound and a half": 680.4,
    "350 g": 350.0,
    "1,2 kg": 1200.0,
    "two pounds": 907.2,
    "¾ lb": 340.2,
    "three quarters of a pound": 340.2,
    "1.250 kg": 1250.0,
    "1 kilo": 1000.0,
    "12 ounces": 340.2,
    "two and a half pounds": 1134.0,
}
#: Birds and joints, by their weight each, g.
COUNTED = {
    "quails": ("quail", 200),
    "duck legs": ("duck_leg", 260),
    "lamb shanks": ("lamb_shank", 410),
    "pork cheeks": ("pork_cheek", 95),
    "pheasants": ("pheasant", 850),
    "rabbits": ("rabbit_farmed", 1300),
}
NUMBERS = {"2": 2, "three": 3, "4": 4, "six": 6}
BOTTLED = {"red wine": "red_wine", "white wine": "white_wine", "Merlot": "red_wine", "sherry": "fortified_dry"}
LEFT = {"by half": 0.5, "to a third": 1 / 3, "by two thirds": 1 / 3, "to three quarters": 0.75}

#: Forms of a line of one thing that is weighed or poured.
PLAIN = (
    "{amount} {name}",
    "{amount} of {name}",
    "{name}, {amount}",
    "{name}: {amount}",
    "{name} {amount}",
    "- {amount} {name}",
    "about {amount} {name}",
    "{amount} {name} (from the market)",
)
#: Ways it was cut, which change nothing.
CUTS = ("", ", diced", ", cut into chunks", " (trimmed)", ", roughly chopped")


def made() -> list[tuple[str, str]]:
    """180 lines, and what each comes to, as the other files of the corpus say it."""
    draw = random.Random(20261126)
    pick = lambda of: draw.choice(sorted(of))  # noqa: E731
    out: list[tuple[str, str]] = []
    for _ in range(60):
        name, text = pick(POURED), pick(VOLUMES)
        key, cup = POURED[name]
        form = draw.choice(PLAIN[:-1])
        out.append((form.format(amount=text, name=name), f"{key} {VOLUMES[text] * cup:.1f}g"))
    for _ in range(45):
        name, text = pick(WEIGHED), pick(WEIGHTS)
        line = draw.choice(PLAIN[:-1]).format(amount=text, name=name + draw.choice(CUTS[:1]))
        if line.endswith(name):
            line += draw.choice(CUTS)
        out.append((line, f"{WEIGHED[name]} {WEIGHTS[text]:.1f}g"))
    for _ in range(25):
        number, birds = pick(NUMBERS), pick(COUNTED)
        key, each = COUNTED[birds]
        form = draw.choice(
            (
                "{n} {birds}, {each} g each",
                "{n} {birds} (about {each} g each)",
                "{n} {birds}, {all} g in all",
                "{n} {birds} ({all} g altogether)",
                "{n} {birds} of {each} g",
                "{all} g {birds}",
            )
        )
        grams = NUMBERS[number] * each
        out.append((form.format(n=number, birds=birds, each=each, all=grams), f"{key} {grams}g"))
    for _ in range(30):
        wine, how = pick(BOTTLED), pick(LEFT)
        form, ml = draw.choice(
            (
                ("a 70 cl bottle of {wine}, reduced {how}", 700),
                ("half a bottle of {wine} reduced {how}", 375),
                ("2 bottles {wine}, boiled down {how}", 1500),
                ("500 ml {wine} (reduced {how})", 500),
                ("{wine}, 500 ml, reduced {how}", 500),
            )
        )
        out.append((form.format(wine=wine, how=how), f"{BOTTLED[wine]} {ml}ml reduced left {LEFT[how]:.3f}"))
    for _ in range(20):
        (one, two), (first, second) = draw.sample(sorted(WEIGHED), 2), draw.sample(sorted(WEIGHTS), 2)
        joint = draw.choice((" and ", " + ", ", ", "; "))
        items = (f"{WEIGHED[one]} {WEIGHTS[first]:.1f}g", f"{WEIGHED[two]} {WEIGHTS[second]:.1f}g")
        out.append((f"{first} {one}{joint}{second} {two}", " ; ".join(items)))
    return out
