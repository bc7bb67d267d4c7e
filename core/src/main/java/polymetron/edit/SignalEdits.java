package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.Map;
import polymetron.library.InterruptPort;
import polymetron.library.StreamType;
import polymetron.platform.Block;
import polymetron.platform.InterruptWire;
import polymetron.platform.Platform;
import polymetron.platform.StreamWire;

/** Interrupts and streams from block to block. */
final class SignalEdits {
    private SignalEdits() {}

    static Platform connectInterrupt(Known known, Edit.ConnectInterrupt edit) {
        InterruptPort source =
                known.interrupt(edit.block(), edit.source(), InterruptPort.End.SOURCE, "source");
        InterruptPort sink =
                known.interrupt(edit.sinkBlock(), edit.sink(), InterruptPort.End.SINK, "sink");
        require(
                source.line().equals(sink.line())
                        || source.line().equals("external") && sink.line().equals("device"),
                "sink",
                "%s.%s is a %s line and cannot go to %s.%s, which takes %s lines"
                        .formatted(
                                edit.block(),
                                edit.source(),
                                source.line(),
                                edit.sinkBlock(),
                                edit.sink(),
                                sink.line()));
        require(
                edit.input() >= 0 && edit.input() <= 1023,
                "input",
                "an input number lies between 0 and 1023");
        InterruptWire before = known.block(edit.block()).interrupts().get(edit.source());
        InterruptWire wire =
                new InterruptWire(
                        edit.sinkBlock(),
                        edit.sink(),
                        edit.input(),
                        before == null ? null : before.priority());
        return known.change(edit.block(), block -> block.withInterrupt(edit.source(), wire));
    }

    static Platform setInterruptPriority(Known known, Edit.SetInterruptPriority edit) {
        require(
                isKey(known.block(edit.block()).interrupts(), edit.source()),
                "source",
                "interrupt %s.%s is not connected".formatted(edit.block(), edit.source()));
        InterruptWire wire = known.block(edit.block()).interrupts().get(edit.source());
        require(
                edit.priority() == null || edit.priority() >= 0 && edit.priority() <= 65535,
                "priority",
                "a priority lies between 0 and 65535");
        return known.change(
                edit.block(),
                block -> block.withInterrupt(edit.source(), wire.withPriority(edit.priority())));
    }

    static Platform connectStream(Known known, Edit.ConnectStream edit) {
        known.stream(edit.block(), edit.source(), StreamType.End.SOURCE, "source");
        known.stream(edit.sinkBlock(), edit.sink(), StreamType.End.SINK, "sink");
        StreamWire wire = new StreamWire(edit.sinkBlock(), edit.sink());
        for (Block other : known.platform().blocks()) {
            for (Map.Entry<String, StreamWire> entry : other.streams().entrySet()) {
                boolean same =
                        other.name().equals(edit.block()) && entry.getKey().equals(edit.source());
                require(
                        same || !entry.getValue().equals(wire),
                        "sink",
                        "%s.%s already has the source %s.%s; a sink takes one stream"
                                .formatted(
                                        edit.sinkBlock(),
                                        edit.sink(),
                                        other.name(),
                                        entry.getKey()));
            }
        }
        return known.change(edit.block(), block -> block.withStream(edit.source(), wire));
    }

    static Platform disconnectInterrupt(Known known, Edit.DisconnectInterrupt edit) {
        require(
                isKey(known.block(edit.block()).interrupts(), edit.source()),
                "source",
                "interrupt %s.%s is not connected".formatted(edit.block(), edit.source()));
        return known.change(edit.block(), block -> block.withInterrupt(edit.source(), null));
    }

    static Platform disconnectStream(Known known, Edit.DisconnectStream edit) {
        require(
                isKey(known.block(edit.block()).streams(), edit.source()),
                "source",
                "stream %s.%s is not connected".formatted(edit.block(), edit.source()));
        return known.change(edit.block(), block -> block.withStream(edit.source(), null));
    }

    /** Sorted maps refuse to look for nothing. */
    private static boolean isKey(Map<String, ?> wires, String name) {
        return name != null && wires.containsKey(name);
    }
}
