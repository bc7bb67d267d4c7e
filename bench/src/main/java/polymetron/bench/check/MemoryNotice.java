package polymetron.bench.check;

import polymetron.address.Address;

/**
 * Something that a program or a block did in memory and hardly meant.
 *
 * @param kind what
 * @param who the hart or block
 * @param place the instruction of the program, as the program's symbols name it; its address without any
 * @param subject block, register and field of an event; null where it is about memory
 * @param address the first address at which it happened
 * @param cycle cycle of the bench's processor at which it happened first
 * @param count how often it happened at this place
 */
public record MemoryNotice(
        Kind kind, String who, String place, String subject, long address, long cycle, long count) {
    /** What there is to notice. */
    public enum Kind {
        NEVER_WRITTEN,
        OVER_INSTRUCTIONS,
        OVER_STACK,
        NOT_FENCED,
        STALE,
        CLEARED_UNREAD
    }

    /** In words, for a person. */
    public String text() {
        String at = Address.format(address);
        String what =
                switch (kind) {
                    case NEVER_WRITTEN ->
                            "%s in %s reads %s, which was never written".formatted(who, place, at);
                    case OVER_INSTRUCTIONS ->
                            "%s writes %s, where instructions are".formatted(who, at);
                    case OVER_STACK ->
                            "%s writes %s, on the stack of the program".formatted(who, at);
                    case NOT_FENCED ->
                            "%s reads %s, which %s stored without a FENCE behind it"
                                    .formatted(who, at, place);
                    case STALE ->
                            "%s in %s reads %s from its cache, but memory was changed since; a FENCE before the load drops the line"
                                    .formatted(who, place, at);
                    case CLEARED_UNREAD ->
                            "%s in %s clears %s, which was set and not read since: the event is lost"
                                    .formatted(who, place, subject);
                };
        return count == 1 ? what : "%s, %s times".formatted(what, count);
    }
}
