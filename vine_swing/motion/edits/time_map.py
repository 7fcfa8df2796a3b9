"""Moving the keys and spans of objects along with a change of time."""

from dataclasses import dataclass

from vine_swing.motion.edits.base import in_time
from vine_swing.motion.scene.objects import SceneObject, Span
from vine_swing.motion.timing.channel import Channel


@dataclass(frozen=True)
class TimeMap:
    """From old frames to new ones: `to` + (frame − `about`) · `factor`."""

    factor: float
    about: float = 0.0
    to: float = 0.0

    def channel(self, channel: Channel) -> Channel:
        """A channel with its keys at their new frames.

        Raises:
            EditError: if they would be out of reach.
        """
        return in_time(channel, self.factor, self.about, self.to)

    def keys_of(self, thing: SceneObject) -> SceneObject:
        """The object with the keys of its channels and of its rules' settings at their new frames."""
        rules = (
            rule.copy_with(settings={name: self.channel(given) if isinstance(given, Channel) else given for name, given in rule.settings.items()})
            for rule in thing.rules
        )
        return thing.copy_with(channels={name: self.channel(channel) for name, channel in thing.channels.items()}, rules=tuple(rules))

    def span(self, span: Span) -> Span:
        """A span with its ends at the nearest whole frames; ends that are the scene's own stay so."""
        first, last = (None if frame is None else round(self.to + (frame - self.about) * self.factor) for frame in (span.first, span.last))
        return Span(first=first, last=last)

    def whole(self, thing: SceneObject) -> SceneObject:
        """The object with its keys and its span at their new frames; the very same where nothing moves."""
        if (self.factor, self.about) == (1.0, self.to):
            return thing
        return self.keys_of(thing).copy_with(span=self.span(thing.span))
