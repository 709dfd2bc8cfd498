package zander.desk;

import static java.util.Objects.requireNonNull;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import zander.core.connect.Connector;
import zander.core.connect.address.TypedAddress;
import zander.core.trust.KnownHosts;
import zander.core.work.BlockingCalls;
import zander.desk.look.Look;
import zander.desk.model.AppModel;
import zander.desk.view.MainView;
import zander.desk.view.part.RestingCaret;
import zander.desk.work.Background;
import zander.desk.work.StallProbe;

/** Puts the program together and opens its window. */
public final class ZanderApp extends Application {
  private static final Duration STALL = Duration.ofMillis(200);

  private @Nullable AppModel model;
  private @Nullable Setup setup;

  @Override
  public void init() throws Exception {
    List<String> words = getParameters().getRaw();
    int folder = words.indexOf("--folder");
    if (words.contains("demo")) {
      setup = Setup.demo(Setup.demoFolder());
    } else if (folder >= 0 && folder + 1 < words.size()) {
      setup = Setup.in(Path.of(words.get(folder + 1)).toAbsolutePath());
    } else {
      setup = Setup.usual();
    }
  }

  @Override
  public void start(Stage stage) {
    model = open(stage, requireNonNull(setup));
    if (getParameters().getRaw().contains("--stalls")) {
      tellStalls();
    }
    getParameters().getRaw().stream()
        .filter(TypedAddress::looksLikeOne)
        .findFirst()
        .ifPresent(model::openTyped);
  }

  /** Writes to the error stream each time that the window does not answer, for who works on it. */
  private static void tellStalls() {
    new StallProbe(
        Platform::runLater,
        STALL,
        stall -> {
          System.err.println("No answer for " + stall.wall() + " ms, " + stall.work() + " of work");
          stall.where().forEach(frame -> System.err.println("    at " + frame));
        });
  }

  /** Opens the window for a setup; tests and measurements come in here. */
  public static AppModel open(Stage stage, Setup setup) {
    BlockingCalls.forbidOn(Platform::isFxApplicationThread);
    Look.loadFonts();
    MainView.Overlay prompts = new MainView.Overlay();
    AppModel model =
        new AppModel(
            new Background(Platform::runLater),
            new Connector(new KnownHosts(setup.knownHosts()), setup.lookup()),
            prompts.prompts(),
            setup.places());
    MainView view = new MainView(model, prompts);
    Scene scene = new Scene(view, 1280, 800);
    Look.apply(scene, false);
    model.darkProperty().addListener((observed, old, now) -> Look.apply(scene, now));
    view.installKeys(scene);
    stage
        .focusedProperty()
        .addListener(
            (observed, old, now) -> {
              if (now) {
                view.cameBack();
              }
            });
    model.book().read();
    stage.setTitle(setup.demo() == null ? "Zander" : "Zander, Riverwatch demo");
    RestingCaret.in(scene);
    stage.setScene(scene);
    stage.setMinWidth(880);
    stage.setMinHeight(580);
    stage.setOnCloseRequest(
        event -> {
          if (model.hasUnsaved()) {
            event.consume();
            model.desks().stream()
                .filter(desk -> desk.hasUnsaved())
                .findFirst()
                .ifPresent(model::close);
          }
        });
    stage.show();
    view.focusFirst();
    return model;
  }

  @Override
  public void stop() {
    if (model != null) {
      model.stop();
    }
    if (setup != null && setup.demo() != null) {
      setup.demo().close();
    }
  }
}
