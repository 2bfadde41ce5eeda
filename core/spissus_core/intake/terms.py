"""How the figures of a list come about, and what each line brings."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from types import MappingProxyType

from ..amounts.estimate import Estimate
from ..amounts.quantities import show_number, show_percent, show_plain, show_volume
from ..ledger.contents import Contents
from ..messages import Argument, Message, Reason, Shown, Term, say
from ..phenomena.alcohol import AlcoholLeft
from .balance import CUTS, DREDGED, SIEVES, TRIMMED, Balance, Poured, as_poured, most_left
from .braise import Braise, Line

#: The steps to a figure.
Terms = tuple[Reason, ...]


#: Less than this of a thing is not named among the terms, g.
LEAST_NAMED_SALT_G, LEAST_NAMED_G = 0.05, 0.1


def terms_of(
    best: Balance, braise: Braise, ranges: Mapping[str, Estimate], alcohol: AlcoholLeft
) -> Mapping[str, Terms]:
    """The steps to each figure of a list, by its name."""
    acid, acetic = ranges["acid"], ranges["acetic"]
    sour = Estimate(acid.low + acetic.low, acid.best + acetic.best, acid.high + acetic.high)
    return MappingProxyType(
        {
            "liquid": _liquid_terms(braise, best),
            "salt": _salt_terms(best, ranges["salt"]),
            "gelatin": _sum_terms(best, lambda c: c.gelatin, ranges["gelatin"], cuts=best.melted),
            "fat": _fat_terms(braise, best, ranges["fat_free"]),
            "sugar": _sum_terms(best, lambda c: c.sugar, ranges["sugar"]),
            # What boils off of it and what does not are one figure to the cook.
            "acid": _sum_terms(best, lambda c: c.acid + c.acetic, sour),
            "alcohol": (Reason(say("explanation.alcohol"), alcohol.why),),
        }
    )


def _range(what: Estimate) -> Message:
    digits = 0 if what.high >= 10 else 1
    return say("intake.likely", low=show_number(what.low, digits), high=show_number(what.high, digits, "g"))


def grams_shown(grams: float, digits: int = 1) -> Shown:
    """Grams, as terms say them."""
    return show_number(grams, digits, "g")


def _liquid_terms(braise: Braise, best: Balance) -> Terms:
    strained = Term(SIEVES[braise.strain].label)
    hours = show_plain(braise.hours, "h")
    dry = (Reason(say("explanation.taken_up"), say("intake.taken_up", grams=grams_shown(best.takes_up, 0))),)
    return (
        Reason(say("explanation.water_in"), say("intake.water_in", grams=grams_shown(best.water_in, 0))),
        Reason(say("explanation.juice"), say("intake.juice", grams=grams_shown(best.juice_g, 0))),
        *(dry if best.takes_up >= LEAST_NAMED_WATER_G else ()),
        Reason(say("explanation.vapour"), say("intake.vapour", grams=grams_shown(best.loss_g, 0), hours=hours)),
        Reason(
            say("explanation.held_back"), say("intake.held_back", grams=grams_shown(best.held_g, 0), sieve=strained)
        ),
        Reason(say("explanation.together"), say("intake.water_together", grams=grams_shown(best.contents.water, 0))),
    )


#: Less water than this is not named among the terms, g.
LEAST_NAMED_WATER_G = 0.5


def _line_reason(line: Line, how: str, **more: Argument) -> Reason:
    """What one line has to do with a figure."""
    return Reason(say("explanation.line", name=line.what.name), say(how, amount=line.shown, **more))


def _salt_terms(best: Balance, salt: Estimate) -> Terms:
    out = [
        _line_reason(line, "intake.line_salt", grams=grams_shown(contents.salt))
        for line, contents in best.brought
        if contents.salt >= LEAST_NAMED_SALT_G
    ]
    if best.meat_salt >= LEAST_NAMED_SALT_G:
        out.append(Reason(say("explanation.meats_own"), say("intake.salt", grams=grams_shown(best.meat_salt))))
    if best.greens.salt >= LEAST_NAMED_SALT_G:
        out.append(Reason(say("explanation.greens"), say("intake.salt", grams=grams_shown(best.greens.salt))))
    if best.salt_lost >= LEAST_NAMED_SALT_G:
        out.append(Reason(say("explanation.left_in_pan"), say("intake.less_salt", grams=grams_shown(best.salt_lost))))
    shared = say(
        "intake.shared_out",
        all=grams_shown(best.salt_total),
        share=show_percent(100 * best.share, 0),
        passes=show_percent(100 * best.passes, 0),
        grams=grams_shown(best.contents.salt),
        likely=_range(salt),
    )
    return (*out, Reason(say("explanation.shared_out"), shared))


def _sum_terms(
    best: Balance, of: Callable[[Contents], float], found: Estimate, cuts: Sequence[tuple[Line, float]] = ()
) -> Terms:
    """What each line brings of one thing, what cuts and vegetables give of it, and how much of it passes the sieve."""
    out = _brought_terms(best, of)
    out += _cut_terms(cuts)
    held, given = of(best.greens), best.given
    if held * given >= LEAST_NAMED_G:
        how = say(
            "intake.greens_give",
            share=show_percent(100 * given, 0),
            held=grams_shown(held),
            grams=grams_shown(given * held),
        )
        out.append(Reason(say("explanation.greens"), how))
    whole = sum(of(c) for _, c in best.brought) + sum(grams for _, grams in cuts) + given * held
    how = say(
        "intake.together_sieved",
        all=grams_shown(whole),
        passes=show_percent(100 * best.passes, 0),
        grams=grams_shown(found.best),
        likely=_range(found),
    )
    return (*out, Reason(say("explanation.together"), how))


def _fat_terms(braise: Braise, best: Balance, found: Estimate) -> Terms:
    """What floats: all of it passes the sieve."""
    out = _brought_terms(best, lambda c: c.fat_free)
    for line, grams in best.rendered:
        rate = CUTS[line.what.cut or ""].fat.best
        most = line.what.fat or 100.0
        capped = {"rate": show_plain(min(rate, most), "%", 3), "grams": grams_shown(grams)}
        if braise.trimmed:
            out.append(_line_reason(line, "intake.line_trimmed", **capped, trimmed=show_plain(TRIMMED)))
        elif rate > most:
            out.append(_line_reason(line, "intake.line_all_its_fat", **capped))
        else:
            out.append(_line_reason(line, "intake.line_raw", **capped))
    how = say("intake.together", grams=grams_shown(found.best), likely=_range(found))
    return (*out, Reason(say("explanation.together"), how))


def _brought_terms(best: Balance, of: Callable[[Contents], float]) -> list[Reason]:
    return [
        _line_reason(line, "intake.line_grams", grams=grams_shown(of(contents)))
        for line, contents in best.brought
        if of(contents) >= LEAST_NAMED_G
    ]


def _cut_terms(cuts: Sequence[tuple[Line, float]]) -> list[Reason]:
    return [
        _line_reason(
            line,
            "intake.line_raw",
            rate=show_plain(CUTS[line.what.cut or ""].gelatin.best, "%", 3),
            grams=grams_shown(grams),
        )
        for line, grams in cuts
    ]


def _gives(grams: Estimate, what: Message, *, first: bool) -> Message:
    """What a cut gives of one thing, in whole grams."""
    high = grams_shown(grams.high, 0)
    if round(grams.low) == round(grams.high):
        return say("intake.gives_just" if first else "intake.brings", grams=high, what=what)
    how = "intake.gives" if first else "intake.gives_too"
    return say(how, low=show_number(grams.low), high=high, what=what)


def brings(line: Line) -> tuple[tuple[str, Message], ...]:
    """What a line puts into the pot, or gives to it, in short: each matter by its key, and how much of it."""
    if not line.counts:
        return ()
    what = line.what
    if what.cut:
        cut, raw = CUTS[what.cut], line.grams / 100.0
        # A cut gives no more fat than it holds.
        fat = cut.fat.at_most(what.fat or 100.0)
        shares = [(key, e) for key, e in (("fat", fat), ("gelatin", cut.gelatin)) if e.high * raw >= 1.0]
        given = [(key, _gives(e.scaled(raw), MATTERS[key], first=place == 0)) for place, (key, e) in enumerate(shares)]
        salt = what.salt * raw
        own = [("salt", say("intake.brings", grams=grams_shown(salt), what=MATTERS["salt"]))] if salt >= 0.1 else []
        return (*given, *own)
    c = as_poured(line).scaled(DREDGED.best if line.use == "dredged" else 1.0)
    named = (
        ("salt", c.salt, 0.1),
        ("alcohol", c.ethanol, 0.5),
        ("fat", c.fat_free + c.fat_emulsified, 1.0),
        ("gelatin", c.gelatin, 1.0),
        ("sugar", c.sugar, 1.0),
        ("acid", c.acid + c.acetic, 0.3),
        ("starch", c.starch_g, 1.0),
    )
    return tuple(
        (key, say("intake.brings", grams=grams_shown(grams, 1 if grams < 10 else 0), what=MATTERS[key]))
        for key, grams, least in named
        if grams >= least
    )


#: What a line may bring, as it is named.
MATTERS: Mapping[str, Message] = {
    "salt": say("intake.matter_salt"),
    "alcohol": say("intake.matter_alcohol"),
    "fat": say("intake.matter_fat"),
    "gelatin": say("intake.matter_gelatin"),
    "sugar": say("intake.matter_sugar"),
    "acid": say("intake.matter_acid"),
    "starch": say("intake.matter_starch"),
}


def reduced_note(line: Line) -> Message | None:
    """What boiling a line down first does to its alcohol, acid and sugar; None where it was not boiled down."""
    if line.use != "reduced" or line.left is None or not line.counts:
        return None
    before, after = line.what.portion(line.grams), as_poured(line)
    return say(
        "intake.reduced",
        left=show_volume(after.liquid_ml),
        amount=line.shown,
        sugar=grams_shown(after.sugar, 0),
        acid=grams_shown(after.acid),
        before=grams_shown(before.ethanol, 0),
        alcohol=grams_shown(after.ethanol),
        most=grams_shown(most_left(Poured(line, after))),
    )
