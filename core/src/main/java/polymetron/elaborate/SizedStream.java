package polymetron.elaborate;

import polymetron.library.StreamType;

/**
 * A stream interface with its parameters worked out.
 *
 * @param dataWidth bits of a word
 * @param traits what its words carry, or what a sink expects of them
 */
public record SizedStream(StreamType type, int dataWidth, StreamTraits traits) {
    public String name() {
        return type.name();
    }

    public boolean isSource() {
        return type.end() == StreamType.End.SOURCE;
    }
}
