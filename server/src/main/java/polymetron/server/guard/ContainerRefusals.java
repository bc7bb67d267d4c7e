package polymetron.server.guard;

import java.io.IOException;
import java.io.Writer;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.springframework.boot.tomcat.ConfigurableTomcatWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/**
 * What the web server refuses before anything of ours sees it, such as an address with a broken escape, is explained
 * by a problem document like everything else, instead of by a page of its own.
 */
@Component
final class ContainerRefusals
        implements WebServerFactoryCustomizer<ConfigurableTomcatWebServerFactory> {
    @Override
    public void customize(ConfigurableTomcatWebServerFactory factory) {
        // The guard refuses it with a reason; the web server would do so without.
        factory.addConnectorCustomizers(connector -> connector.setAllowTrace(true));
        factory.addContextCustomizers(
                context ->
                        ((StandardHost) context.getParent())
                                .setErrorReportValveClass(Report.class.getName()));
    }

    /** Made by the web server, by its name. */
    public static final class Report extends ErrorReportValve {
        @Override
        protected void report(Request request, Response response, Throwable failure) {
            int status = response.getStatus();
            if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) {
                return;
            }
            String detail =
                    status < 500 || status == 501
                            ? "the web server does not understand the method, the address or the"
                                    + " headers of this request"
                            : "the web server could not carry out the request";
            try {
                response.setContentType(Problems.MEDIA_TYPE);
                response.setCharacterEncoding("UTF-8");
                SecurityHeaders.on(response.getResponse());
                Writer writer = response.getReporter();
                if (writer != null) {
                    writer.write(Problems.text(status, "Not understood", detail));
                    response.finishResponse();
                }
            } catch (IOException gone) {
                // The client has gone: no answer.
            }
        }
    }
}
