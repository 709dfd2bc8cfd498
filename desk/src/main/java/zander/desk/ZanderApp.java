package zander.desk;

import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;
import zander.core.connect.Connector;
import zander.core.trust.KnownHosts;
import zander.core.work.BlockingCalls;
import zander.desk.look.Look;
import zander.desk.model.AppModel;
import zander.desk.view.MainView;
import zander.desk.work.Background;

/** Puts the program together and opens its window. */
public final class ZanderApp extends Application {
  private AppModel model;
  private Setup setup;

  @Override
  public void init() throws Exception {
    setup =
        getParameters().getRaw().contains("demo") ? Setup.demo(Setup.demoFolder()) : Setup.usual();
  }

  @Override
  public void start(Stage stage) {
    model = open(stage, setup);
  }

  /** Opens the window for a setup; tests come in here. */
  static AppModel open(Stage stage, Setup setup) {
    BlockingCalls.forbidOn(Platform::isFxApplicationThread);
    Look.loadFonts();
    MainView.Prompts prompts = new MainView.Prompts();
    AppModel model =
        new AppModel(
            new Background(Platform::runLater),
            new Connector(new KnownHosts(setup.knownHosts()), setup.lookup()),
            prompts,
            setup.home(),
            setup.state());
    MainView view = new MainView(model, prompts);
    Scene scene = new Scene(view, 1280, 800);
    Look.apply(scene, false);
    model.darkProperty().addListener((observed, old, now) -> Look.apply(scene, now));
    view.installKeys(scene);
    model.readBook(setup.book());
    stage.setTitle(setup.demo() == null ? "Zander" : "Zander, Riverwatch demo");
    stage.setScene(scene);
    stage.setMinWidth(960);
    stage.setMinHeight(600);
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
    model.stop();
    if (setup.demo() != null) {
      setup.demo().close();
    }
  }
}
