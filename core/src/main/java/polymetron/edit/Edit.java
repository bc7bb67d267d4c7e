package polymetron.edit;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.library.Vlnv;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.PinSetting;

/**
 * One change of a platform, as a user would say it. Interface, API, import and command line change a platform in
 * no other way; {@link Editor} applies it.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "edit")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Edit.AddBlock.class, name = "add-block"),
    @JsonSubTypes.Type(value = Edit.RemoveBlock.class, name = "remove-block"),
    @JsonSubTypes.Type(value = Edit.RenameBlock.class, name = "rename-block"),
    @JsonSubTypes.Type(value = Edit.SetParameter.class, name = "set-parameter"),
    @JsonSubTypes.Type(value = Edit.SetDomain.class, name = "set-domain"),
    @JsonSubTypes.Type(value = Edit.Attach.class, name = "attach"),
    @JsonSubTypes.Type(value = Edit.Detach.class, name = "detach"),
    @JsonSubTypes.Type(value = Edit.SetReach.class, name = "set-reach"),
    @JsonSubTypes.Type(value = Edit.SetPriority.class, name = "set-priority"),
    @JsonSubTypes.Type(value = Edit.SetType.class, name = "set-type"),
    @JsonSubTypes.Type(value = Edit.ConnectStream.class, name = "connect-stream"),
    @JsonSubTypes.Type(value = Edit.DisconnectStream.class, name = "disconnect-stream"),
    @JsonSubTypes.Type(value = Edit.Group.class, name = "group"),
    @JsonSubTypes.Type(value = Edit.Ungroup.class, name = "ungroup"),
    @JsonSubTypes.Type(value = Edit.RenameGroup.class, name = "rename-group"),
    @JsonSubTypes.Type(value = Edit.ConnectInterrupt.class, name = "connect-interrupt"),
    @JsonSubTypes.Type(value = Edit.DisconnectInterrupt.class, name = "disconnect-interrupt"),
    @JsonSubTypes.Type(value = Edit.SetInterruptPriority.class, name = "set-interrupt-priority"),
    @JsonSubTypes.Type(value = Edit.BindPart.class, name = "bind-part"),
    @JsonSubTypes.Type(value = Edit.BindPins.class, name = "bind-pins"),
    @JsonSubTypes.Type(value = Edit.Unbind.class, name = "unbind"),
    @JsonSubTypes.Type(value = Edit.AddBus.class, name = "add-bus"),
    @JsonSubTypes.Type(value = Edit.Reserve.class, name = "reserve"),
    @JsonSubTypes.Type(value = Edit.Unreserve.class, name = "unreserve"),
    @JsonSubTypes.Type(value = Edit.SetTraffic.class, name = "set-traffic"),
    @JsonSubTypes.Type(value = Edit.SetPins.class, name = "set-pins"),
    @JsonSubTypes.Type(value = Edit.RemoveBus.class, name = "remove-bus"),
    @JsonSubTypes.Type(value = Edit.ChangeBus.class, name = "change-bus"),
    @JsonSubTypes.Type(value = Edit.AddDomain.class, name = "add-domain"),
    @JsonSubTypes.Type(value = Edit.ChangeDomain.class, name = "change-domain"),
    @JsonSubTypes.Type(value = Edit.RenameDomain.class, name = "rename-domain"),
    @JsonSubTypes.Type(value = Edit.RemoveDomain.class, name = "remove-domain"),
    @JsonSubTypes.Type(value = Edit.ChangeBoard.class, name = "change-board"),
    @JsonSubTypes.Type(value = Edit.RenamePlatform.class, name = "rename-platform"),
    @JsonSubTypes.Type(value = Edit.Accept.class, name = "accept"),
    @JsonSubTypes.Type(value = Edit.Reopen.class, name = "reopen"),
    @JsonSubTypes.Type(value = Edit.Several.class, name = "several")
})
public sealed interface Edit {

    /** What the edit does, in words for the history and the undo button. */
    String describe();

    /** Places a block of a type, unconnected. */
    record AddBlock(String name, Vlnv type, Map<String, String> parameters) implements Edit {
        @Override
        public String describe() {
            return "add " + name;
        }
    }

    /** Removes a block with every interrupt wire and stream to it. */
    record RemoveBlock(String block) implements Edit {
        @Override
        public String describe() {
            return "remove " + block;
        }
    }

    record RenameBlock(String block, String name) implements Edit {
        @Override
        public String describe() {
            return "rename %s to %s".formatted(block, name);
        }
    }

    /** Sets a parameter; a null value goes back to the default. */
    record SetParameter(String block, String parameter, String value) implements Edit {
        @Override
        public String describe() {
            return "set %s of %s to %s"
                    .formatted(parameter, block, value == null ? "its default" : value);
        }
    }

    /**
     * Puts a clock or reset input into a domain; a null domain disconnects it. Resets that are in the domain of their
     * clock go with it into another.
     */
    record SetDomain(String block, String port, String domain) implements Edit {
        @Override
        public String describe() {
            return domain == null
                    ? "disconnect %s.%s".formatted(block, port)
                    : "connect %s.%s to %s".formatted(block, port, domain);
        }
    }

    /** Puts a bus interface on a bus, or moves the range of a target that is on it. */
    record Attach(String block, String busInterface, String bus, Address base, Boolean held)
            implements Edit {
        @Override
        public String describe() {
            return base == null
                    ? "put %s.%s on %s".formatted(block, busInterface, bus)
                    : "place %s at %s".formatted(block, base);
        }
    }

    record Detach(String block, String busInterface) implements Edit {
        @Override
        public String describe() {
            return "take %s.%s off its bus".formatted(block, busInterface);
        }
    }

    /** Lets an initiator reach a target, or hides the target from it. */
    record SetReach(
            String block,
            String busInterface,
            String target,
            String targetInterface,
            boolean reached)
            implements Edit {
        @Override
        public String describe() {
            return reached
                    ? "let %s.%s reach %s".formatted(block, busInterface, target)
                    : "hide %s from %s.%s".formatted(target, block, busInterface);
        }
    }

    /** Says how early an initiator gets its turn where priorities decide; null for the last. */
    record SetPriority(String block, String busInterface, Integer priority) implements Edit {
        @Override
        public String describe() {
            return "give %s.%s priority %s"
                    .formatted(block, busInterface, priority == null ? "last" : priority);
        }
    }

    /** Makes a block another version of its type; what the new one does not have is dropped. */
    record SetType(String block, Vlnv type) implements Edit {
        @Override
        public String describe() {
            return "change %s to %s %s".formatted(block, type.name(), type.version());
        }
    }

    /** Leads a stream source to a sink. */
    record ConnectStream(String block, String source, String sinkBlock, String sink)
            implements Edit {
        @Override
        public String describe() {
            return "stream %s.%s to %s.%s".formatted(block, source, sinkBlock, sink);
        }
    }

    record DisconnectStream(String block, String source) implements Edit {
        @Override
        public String describe() {
            return "leave stream %s.%s open".formatted(block, source);
        }
    }

    /** Puts blocks into a group; their names begin with its name from then on. */
    record Group(String name, List<String> blocks) implements Edit {
        public Group {
            blocks = kept(blocks);
        }

        @Override
        public String describe() {
            return "group %s as %s".formatted(String.join(", ", blocks), name);
        }
    }

    /** Takes all blocks out of a group; they keep its name in theirs only where they have to. */
    record Ungroup(String name) implements Edit {
        @Override
        public String describe() {
            return "dissolve group " + name;
        }
    }

    record RenameGroup(String name, String newName) implements Edit {
        @Override
        public String describe() {
            return "rename group %s to %s".formatted(name, newName);
        }
    }

    record ConnectInterrupt(String block, String source, String sinkBlock, String sink, int input)
            implements Edit {
        @Override
        public String describe() {
            return "connect interrupt %s.%s to %s %s".formatted(block, source, sinkBlock, input);
        }
    }

    /** Says which priority software is to give an interrupt; null for its own choice. */
    record SetInterruptPriority(String block, String source, Integer priority) implements Edit {
        @Override
        public String describe() {
            return priority == null
                    ? "leave the priority of %s.%s to software".formatted(block, source)
                    : "give interrupt %s.%s priority %s".formatted(block, source, priority);
        }
    }

    record DisconnectInterrupt(String block, String source) implements Edit {
        @Override
        public String describe() {
            return "disconnect interrupt %s.%s".formatted(block, source);
        }
    }

    /** Takes a board part for the outward ports of a block. */
    record BindPart(String block, String outward, String part) implements Edit {
        @Override
        public String describe() {
            return "connect %s.%s to board part %s".formatted(block, outward, part);
        }
    }

    /** Chooses pins by hand, lowest line first. */
    record BindPins(String block, String outward, Map<String, List<String>> pins) implements Edit {
        @Override
        public String describe() {
            return "assign pins to %s.%s".formatted(block, outward);
        }
    }

    record Unbind(String block, String outward) implements Edit {
        @Override
        public String describe() {
            return "leave %s.%s open".formatted(block, outward);
        }
    }

    record AddBus(Bus bus) implements Edit {
        @Override
        public String describe() {
            return "add bus " + bus.name();
        }
    }

    /** Removes a bus that nothing is attached to. */
    record RemoveBus(String bus) implements Edit {
        @Override
        public String describe() {
            return "remove bus " + bus;
        }
    }

    /** Changes protocol, widths or domain of a bus; its name stays. */
    record ChangeBus(Bus bus) implements Edit {
        @Override
        public String describe() {
            return "change bus " + bus.name();
        }
    }

    /** Keeps addresses of a bus free of automatic placement; a reservation of that name is replaced. */
    record Reserve(String bus, String name, Address base, Address last) implements Edit {
        @Override
        public String describe() {
            return "reserve %s–%s for %s".formatted(base, last, name);
        }
    }

    record Unreserve(String bus, String name) implements Edit {
        @Override
        public String describe() {
            return "no longer reserve addresses for " + name;
        }
    }

    /** Specifies the bandwidth that an initiator requires, in bytes a second; null for none. */
    record SetTraffic(String block, String busInterface, Long traffic) implements Edit {
        @Override
        public String describe() {
            return traffic == null
                    ? "no longer say what %s.%s moves".formatted(block, busInterface)
                    : "let %s.%s move %s bytes a second".formatted(block, busInterface, traffic);
        }
    }

    /** Sets the pins of a port electrically; a null setting goes back to the usual. */
    record SetPins(String block, String outward, String port, PinSetting setting) implements Edit {
        @Override
        public String describe() {
            return "set the pins of %s.%s".formatted(block, port);
        }
    }

    record AddDomain(ClockDomain domain) implements Edit {
        @Override
        public String describe() {
            return "add clock domain " + domain.name();
        }
    }

    /** Changes source, reset or requested frequency of a clock domain; its name stays. */
    record ChangeDomain(ClockDomain domain) implements Edit {
        @Override
        public String describe() {
            return "change clock domain " + domain.name();
        }
    }

    record RenameDomain(String domain, String name) implements Edit {
        @Override
        public String describe() {
            return "rename clock domain %s to %s".formatted(domain, name);
        }
    }

    /**
     * Removes a clock domain.
     *
     * @param into domain that takes its inputs and buses; null when nothing is in it
     */
    record RemoveDomain(String domain, String into) implements Edit {
        @Override
        public String describe() {
            return into == null
                    ? "remove clock domain " + domain
                    : "remove clock domain %s, its blocks to %s".formatted(domain, into);
        }
    }

    /** Another board; what refers to the old one is not touched. */
    record ChangeBoard(Vlnv board) implements Edit {
        @Override
        public String describe() {
            return "change the board to %s".formatted(board == null ? "none" : board.name());
        }
    }

    record RenamePlatform(String name) implements Edit {
        @Override
        public String describe() {
            return "name the platform " + name;
        }
    }

    /**
     * Accepts a finding, with a reason.
     *
     * @param author who accepts it, as they call themselves; null when they do not say
     * @param revision revision that was looked at; null when there are none
     */
    record Accept(
            String rule, String subject, String what, String reason, String author, Long revision)
            implements Edit {
        @Override
        public String describe() {
            return "accept finding %s at %s".formatted(rule, subject);
        }
    }

    /** Takes an acceptance back. */
    record Reopen(String rule, String subject) implements Edit {
        @Override
        public String describe() {
            return "reopen finding %s at %s".formatted(rule, subject);
        }
    }

    /** Several edits that are applied, stored and undone as one. */
    record Several(String title, List<Edit> edits) implements Edit {
        public Several {
            edits = kept(edits);
        }

        @Override
        public String describe() {
            if (title != null && !title.isBlank()) {
                return title;
            }
            return edits.isEmpty()
                    ? "change nothing"
                    : edits.stream().map(Edit::describe).collect(Collectors.joining(", "));
        }
    }

    /** A list as it came, holes and all: the editor says what is wrong with them. */
    private static <T> List<T> kept(List<T> list) {
        return list == null ? List.of() : Collections.unmodifiableList(new ArrayList<>(list));
    }
}
