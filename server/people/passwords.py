"""Passwords that are long enough and still the first that anybody would try."""

from __future__ import annotations

import re

from django.core.exceptions import ValidationError
from spissus_core.messages import say
from words import plain

#: The name of the app, with digits and signs around it.
_OUR_NAME = re.compile(r"[\W\d_]*spissus[\W\d_]*")
#: One word, or one sign, over and over.
_REPEATED = re.compile(r"(.+?)[\W_]*(\1[\W_]*)+")
#: Fewer different signs than this are no secret, however often they come.
LEAST_DIFFERENT = 4


class NotTheObvious:
    """Refuses the app's name with a year, one word twice, and spaces."""

    def validate(self, password: str, user: object = None) -> None:
        """Raises ValidationError with a sentence."""
        said = password.casefold()
        for key, found in (
            ("kitchen.password_spaces", not said.strip()),
            ("kitchen.password_our_name", _OUR_NAME.fullmatch(said)),
            ("kitchen.password_repeated", _REPEATED.fullmatch(said) or len(set(said)) < LEAST_DIFFERENT),
        ):
            if found:
                raise ValidationError(plain(say(key)), code="obvious")

    def get_help_text(self) -> str:
        """For forms of the framework, of which there are none."""
        return ""
