package polymetron.server;

import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolver;

/** Gives tests the running application; one is started for all of them and ended after the last. */
public final class OneServer implements ParameterResolver {
    private static final class Holder implements AutoCloseable {
        private final RunningServer server;

        private Holder() {
            try {
                server = RunningServer.start();
            } catch (java.io.IOException | InterruptedException failure) {
                throw new IllegalStateException(failure);
            }
        }

        @Override
        public void close() throws java.io.IOException {
            server.close();
        }
    }

    @Override
    public boolean supportsParameter(ParameterContext parameter, ExtensionContext test) {
        return parameter.getParameter().getType() == RunningServer.class;
    }

    @Override
    public Object resolveParameter(ParameterContext parameter, ExtensionContext test) {
        return test.getRoot()
                .getStore(ExtensionContext.Namespace.create(OneServer.class))
                .getOrComputeIfAbsent(Holder.class, type -> new Holder(), Holder.class)
                .server;
    }
}
