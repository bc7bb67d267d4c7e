package polymetron.server.event;

import java.io.IOException;
import java.util.UUID;

/** Something live of a platform that a browser may watch beside its revisions, which is its bench. */
public interface Topic {
    /** Begins to watch it for one browser; what is there already counts as news. */
    Watch watch(UUID platform);

    /** What one browser has been told so far. Used by one thread at a time. */
    interface Watch {
        /** Tells what is new since the last call; nothing when there is no news. */
        void tellNews(Teller teller) throws IOException;
    }

    /** Takes one event to the browser. */
    interface Teller {
        /**
         * @param data becomes JSON
         * @throws IOException when the browser is gone
         */
        void tell(String event, Object data) throws IOException;
    }
}
