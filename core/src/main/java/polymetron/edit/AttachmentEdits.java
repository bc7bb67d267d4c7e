package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.List;
import java.util.TreeSet;
import polymetron.bus.Adapters;
import polymetron.library.BusInterfaceType;
import polymetron.library.Role;
import polymetron.platform.Attachment;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

/** Bus interfaces of blocks: on which bus, where, and what an initiator may do there. */
final class AttachmentEdits {
    private AttachmentEdits() {}

    static Platform attach(Known known, Edit.Attach edit) {
        BusInterfaceType form = known.busInterface(edit.block(), edit.busInterface());
        Bus bus = known.bus(edit.bus());
        require(
                Adapters.canJoin(form.protocols(), bus.protocol()),
                "bus",
                "%s.%s speaks %s, bus %s speaks %s, and there is no adapter between them"
                        .formatted(
                                edit.block(),
                                edit.busInterface(),
                                form.protocols(),
                                bus.name(),
                                bus.protocol()));
        require(
                form.role() == Role.TARGET || edit.base() == null,
                "base",
                "%s.%s is an initiator: it has no base"
                        .formatted(edit.block(), edit.busInterface()));
        require(
                !form.isInside(),
                "busInterface",
                "%s.%s is inside its block and on no bus"
                        .formatted(edit.block(), edit.busInterface()));
        Boolean held = Boolean.TRUE.equals(edit.held()) ? true : null;
        Attachment before = known.block(edit.block()).attachments().get(edit.busInterface());
        boolean stays = before != null && before.bus().equals(edit.bus());
        Attachment attachment =
                new Attachment(
                        edit.bus(),
                        edit.base(),
                        held,
                        stays ? before.hidden() : null,
                        stays ? before.priority() : null,
                        stays ? before.traffic() : null);
        return known.change(
                edit.block(), block -> block.withAttachment(edit.busInterface(), attachment));
    }

    static Platform detach(Known known, Edit.Detach edit) {
        known.busInterface(edit.block(), edit.busInterface());
        return known.change(edit.block(), block -> block.withAttachment(edit.busInterface(), null));
    }

    static Platform setReach(Known known, Edit.SetReach edit) {
        BusInterfaceType form = known.busInterface(edit.block(), edit.busInterface());
        BusInterfaceType target = known.busInterface(edit.target(), edit.targetInterface());
        require(
                form.role() == Role.INITIATOR && target.role() == Role.TARGET,
                "busInterface",
                "%s.%s is to be an initiator and %s.%s a target"
                        .formatted(
                                edit.block(),
                                edit.busInterface(),
                                edit.target(),
                                edit.targetInterface()));
        Attachment attachment = known.block(edit.block()).attachments().get(edit.busInterface());
        require(
                attachment != null,
                "busInterface",
                "%s.%s is on no bus".formatted(edit.block(), edit.busInterface()));
        TreeSet<String> hidden = new TreeSet<>(attachment.hidden());
        String ref = edit.target() + "." + edit.targetInterface();
        if (edit.reached()) {
            hidden.remove(ref);
        } else {
            hidden.add(ref);
        }
        return known.change(
                edit.block(),
                block ->
                        block.withAttachment(
                                edit.busInterface(), attachment.hiding(List.copyOf(hidden))));
    }

    /** Where an initiator is on a bus. */
    private static Attachment initiator(Known known, String block, String name) {
        BusInterfaceType form = known.busInterface(block, name);
        Attachment at = known.block(block).attachments().get(name);
        require(
                form.role() == Role.INITIATOR && at != null,
                "busInterface",
                "%s.%s is no initiator on a bus".formatted(block, name));
        return at;
    }

    static Platform setPriority(Known known, Edit.SetPriority edit) {
        Attachment at = initiator(known, edit.block(), edit.busInterface());
        require(
                edit.priority() == null
                        || edit.priority() >= 0 && edit.priority() <= Attachment.LAST_PRIORITY,
                "priority",
                "a priority lies between 0 and %s".formatted(Attachment.LAST_PRIORITY));
        return known.change(
                edit.block(),
                block ->
                        block.withAttachment(
                                edit.busInterface(), at.withPriority(edit.priority())));
    }

    static Platform setTraffic(Known known, Edit.SetTraffic edit) {
        Attachment at = initiator(known, edit.block(), edit.busInterface());
        require(
                edit.traffic() == null
                        || edit.traffic() >= 1 && edit.traffic() <= Attachment.MOST_TRAFFIC,
                "traffic",
                "an initiator moves between 1 byte and 1 TB a second");
        return known.change(
                edit.block(),
                block -> block.withAttachment(edit.busInterface(), at.withTraffic(edit.traffic())));
    }
}
