package polymetron.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import polymetron.platform.PlatformDocument;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.ProgramStore;

/** Puts the demo platforms and their programs into an empty store. */
@Component
final class DemoPlatform {
    private static final String FOLDER = "/polymetron/library/demo/";

    private final PlatformStore platforms;
    private final ProgramStore programs;

    DemoPlatform(PlatformStore platforms, ProgramStore programs) {
        this.platforms = platforms;
        this.programs = programs;
    }

    @EventListener(ApplicationReadyEvent.class)
    @Order(0)
    void load() throws IOException {
        if (!platforms.list().isEmpty()) {
            return;
        }
        add("first-steps", "a console, to begin with", false);
        add("canal-lock", "the canal lock", true);
        add("ridge-station", "the small station", true);
        add("highland-station", "the demo station", true);
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
