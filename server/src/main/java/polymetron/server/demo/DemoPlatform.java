package polymetron.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.platform.PlatformDocument;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.ProgramStore;

/** Puts the demo platforms, their programs and the block types that one of them brings into an empty store. */
@Component
final class DemoPlatform {
    private static final String FOLDER = "/polymetron/library/demo/";

    private final Libraries libraries;
    private final PlatformStore platforms;
    private final ProgramStore programs;

    DemoPlatform(Libraries libraries, PlatformStore platforms, ProgramStore programs) {
        this.libraries = libraries;
        this.platforms = platforms;
        this.programs = programs;
    }

    @EventListener(ApplicationReadyEvent.class)
    @Order(0)
    void load() throws IOException {
        if (!platforms.list().isEmpty()) {
            return;
        }
        add("light-sequencer");
        add("press-counter");
        add("harbour-light", "a light with blocks of one's own", true);
        add("first-steps", "a console, to begin with", false);
        add("canal-lock", "the canal lock", true);
        add("ridge-station", "the small station", true);
        add("highland-station", "the demo station", true);
    }

    /** A block type; one that is there already stays. */
    private void add(String block) throws IOException {
        String file = block + ".json";
        String document = new String(read("blocks/" + file), StandardCharsets.UTF_8);
        libraries.save(OwnBlockDocument.read(file, document), null);
    }

    private void add(String name, String title, boolean program) throws IOException {
        String file = name + ".json";
        String document = new String(read(file), StandardCharsets.UTF_8);
        UUID id = platforms.create(PlatformDocument.read(file, document), title);
        if (program) {
            programs.add(id, name + ".elf", read(name + ".elf"));
        }
    }

    private static byte[] read(String name) throws IOException {
        try (InputStream in = DemoPlatform.class.getResourceAsStream(FOLDER + name)) {
            if (in == null) {
                throw new IOException("the library has no " + name);
            }
            return in.readAllBytes();
        }
    }
}
