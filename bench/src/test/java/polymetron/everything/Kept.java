package polymetron.everything;

import polymetron.everything.DocumentFacts.Target;
import tools.jackson.databind.JsonNode;

/** What a register gives that nothing but software changes: SystemRDL 2.0, 9.4 to 9.6, field by field. */
final class Kept {
    private Kept() {}

    /** What is read of a value: nothing of a register that is only written. */
    static long reads(JsonNode register, long value) {
        return register.path("access").asString().equals("write-only") ? 0 : value & 0xFFFF_FFFFL;
    }

    /** What is read after all ones were written. */
    static long after(DocumentFacts facts, Target target, JsonNode register) {
        return after(facts, target, register, 0xFFFF_FFFFL);
    }

    /** What is read after a value was written over the one after reset. */
    static long after(DocumentFacts facts, Target target, JsonNode register, long written) {
        long value = facts.reset(target, register) & 0xFFFF_FFFFL;
        for (JsonNode field : register.path("fields")) {
            long bits = facts.number(target.block(), field.path("width"), 1);
            long mask = ((1L << bits) - 1) << facts.number(target.block(), field.path("lowBit"), 0);
            String access = field.path("access").asString(register.path("access").asString());
            value =
                    switch (access) {
                        case "read-write", "write-only" -> value & ~mask | written & mask;
                        case "write-one-to-clear" -> value & ~(written & mask);
                        default -> value;
                    };
        }
        return reads(register, value);
    }
}
