package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.List;
import polymetron.json.Documents;
import polymetron.library.Library;
import polymetron.platform.Platform;
import polymetron.text.Escape;
import polymetron.text.PlainText;
import tools.jackson.databind.json.JsonMapper;

/**
 * Applies edits. Pure: the platform given is not touched, and what is refused is refused whole. Refused is what
 * makes no sense (an unknown name); what makes sense but does not work yet is applied and becomes a finding.
 */
public final class Editor {
    private static final int DEEPEST = 20;
    private static final JsonMapper MAPPER = Documents.mapper();
    private final Library library;

    public Editor(Library library) {
        this.library = library;
    }

    /**
     * @throws RejectedEdit when the edit refers to something that is not there or has an impossible value
     */
    public Platform apply(Platform platform, Edit edit) {
        PlainText.fault(MAPPER.valueToTree(edit))
                .ifPresent(
                        fault -> {
                            throw new RejectedEdit(
                                    fault.pointer().replaceFirst(".*/", ""), fault.what());
                        });
        Platform after = apply(new Known(library, platform), edit, 0);
        atMost(after.blocks(), Platform.MOST_BLOCKS, "blocks");
        atMost(after.buses(), Platform.MOST_BUSES, "buses");
        atMost(after.domains(), Platform.MOST_DOMAINS, "domains");
        atMost(after.accepted(), Platform.MOST_ACCEPTED, "accepted findings");
        return after;
    }

    private static void atMost(List<?> all, int most, String what) {
        require(all.size() <= most, "edit", "a platform has at most %s %s".formatted(most, what));
    }

    private Platform apply(Known known, Edit edit, int depth) {
        return switch (edit) {
            case Edit.AddBlock add -> BlockEdits.add(known, add);
            case Edit.RemoveBlock remove -> BlockEdits.remove(known, remove);
            case Edit.RenameBlock rename -> BlockEdits.rename(known, rename);
            case Edit.SetParameter set -> BlockEdits.setParameter(known, set);
            case Edit.SetDomain set -> DomainEdits.set(known, set);
            case Edit.Attach attach -> AttachmentEdits.attach(known, attach);
            case Edit.Detach detach -> AttachmentEdits.detach(known, detach);
            case Edit.SetReach set -> AttachmentEdits.setReach(known, set);
            case Edit.SetPriority set -> AttachmentEdits.setPriority(known, set);
            case Edit.SetType set -> BlockEdits.setType(known, set);
            case Edit.ConnectStream connect -> SignalEdits.connectStream(known, connect);
            case Edit.DisconnectStream cut -> SignalEdits.disconnectStream(known, cut);
            case Edit.Group group -> Groups.group(known.platform(), group);
            case Edit.Ungroup ungroup -> Groups.ungroup(known.platform(), ungroup.name());
            case Edit.RenameGroup rename -> Groups.renameGroup(known.platform(), rename);
            case Edit.ConnectInterrupt connect -> SignalEdits.connectInterrupt(known, connect);
            case Edit.SetInterruptPriority set -> SignalEdits.setInterruptPriority(known, set);
            case Edit.DisconnectInterrupt cut -> SignalEdits.disconnectInterrupt(known, cut);
            case Edit.BindPart bind -> OutwardEdits.bindPart(known, bind);
            case Edit.BindPins bind -> OutwardEdits.bindPins(known, bind);
            case Edit.Unbind unbind -> OutwardEdits.unbind(known, unbind);
            case Edit.AddBus add -> BusEdits.add(known, add);
            case Edit.Reserve reserve -> Reservations.reserve(known.platform(), reserve);
            case Edit.Unreserve free -> Reservations.free(known.platform(), free);
            case Edit.SetTraffic set -> AttachmentEdits.setTraffic(known, set);
            case Edit.SetPins set -> OutwardEdits.setPins(known, set);
            case Edit.RemoveBus remove -> BusEdits.remove(known, remove);
            case Edit.ChangeBus change -> BusEdits.change(known, change);
            case Edit.AddDomain add -> DomainEdits.add(known, add);
            case Edit.ChangeDomain change -> DomainEdits.change(known, change);
            case Edit.RenameDomain rename -> DomainEdits.rename(known, rename);
            case Edit.RemoveDomain remove -> DomainEdits.remove(known, remove);
            case Edit.ChangeBoard change -> {
                require(
                        change.board() != null && known.library().board(change.board()).isPresent(),
                        "board",
                        "there is no board %s".formatted(change.board()));
                yield known.platform().withBoard(change.board());
            }
            case Edit.RenamePlatform rename -> known.platform().withName(title(rename.name()));
            case Edit.Accept accept -> AcceptanceEdits.accept(known, accept);
            case Edit.Reopen reopen -> AcceptanceEdits.reopen(known, reopen);
            case Edit.Several several -> {
                require(
                        depth < DEEPEST,
                        "edits",
                        "edits are nested more than %s deep".formatted(DEEPEST));
                Known sofar = known;
                for (Edit part : several.edits()) {
                    require(part != null, "edits", "one of the edits is empty");
                    sofar = sofar.with(apply(sofar, part, depth + 1));
                }
                yield sofar.platform();
            }
        };
    }

    /** A platform's title without blanks around it. */
    public static String title(String name) {
        require(name != null && !name.isBlank(), "name", "a platform needs a name");
        require(name.strip().length() <= 80, "name", "a name has at most 80 characters");
        require(
                name.codePoints().allMatch(Escape::isShown),
                "name",
                "a name has no line breaks and no characters that are not shown");
        return name.strip();
    }
}
