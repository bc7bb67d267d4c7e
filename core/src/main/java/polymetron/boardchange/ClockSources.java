package polymetron.boardchange;

import java.util.List;
import polymetron.boardchange.BoardChange.Outcome;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.library.Board;
import polymetron.platform.ClockDomain;
import polymetron.quantity.Frequency;

/** Clock domains that the board clocks or resets. */
final class ClockSources {
    private final Draft draft;

    ClockSources(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        for (Domain domain : draft.before().domains()) {
            if (domain.clock() != null) {
                clock(domain);
            }
            if (domain.reset() != null) {
                reset(domain);
            }
        }
    }

    private void clock(Domain domain) {
        Board to = draft.to();
        Board.Clock same = to.clock(domain.clock().name()).orElse(null);
        if (same == null && to.clocks().isEmpty()) {
            draft.say(
                    Outcome.LOST, domain.name(), "has no clock: %s has none".formatted(to.title()));
            return;
        }
        Board.Clock clock = same == null ? to.clocks().getFirst() : same;
        if (same == null) {
            change(domain, now(domain).withClock(clock.name()));
        }
        long before = domain.clock().frequencyHz();
        boolean stays = same != null && clock.frequencyHz() == before;
        draft.say(
                stays ? Outcome.STAYS : Outcome.CHANGES,
                domain.name(),
                stays
                        ? "on %s, %s".formatted(clock.name(), Frequency.format(before))
                        : "on %s, %s instead of %s"
                                .formatted(
                                        clock.name(),
                                        Frequency.format(clock.frequencyHz()),
                                        Frequency.format(before)));
    }

    private void reset(Domain domain) {
        Board to = draft.to();
        String name = domain.reset().name();
        if (to.reset(name).isPresent()) {
            draft.say(Outcome.STAYS, domain.name(), "reset by " + name);
        } else if (to.resets().isEmpty()) {
            change(domain, now(domain).withReset(null));
            draft.say(
                    Outcome.LOST, domain.name(), "has no reset: %s has none".formatted(to.title()));
        } else {
            String other = to.resets().getFirst().name();
            change(domain, now(domain).withReset(other));
            draft.say(
                    Outcome.CHANGES,
                    domain.name(),
                    "reset by %s instead of %s".formatted(other, name));
        }
    }

    private ClockDomain now(Domain domain) {
        return draft.now().platform().domain(domain.name()).orElseThrow();
    }

    private void change(Domain domain, ClockDomain to) {
        if (!now(domain).equals(to)) {
            draft.apply(List.of(new Edit.ChangeDomain(to)));
        }
    }
}
