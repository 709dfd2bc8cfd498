package zander.desk;

import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import zander.desk.look.Look;

/** A window with our look and nothing in it: what {@code bench/idle} measures beside Zander. */
public final class EmptyWindow extends Application {
  @Override
  public void start(Stage stage) {
    Look.loadFonts();
    Scene scene = new Scene(new StackPane(new Label("empty")), 1280, 800);
    Look.apply(scene, false);
    stage.setTitle("Zander, empty");
    stage.setScene(scene);
    stage.show();
  }

  /** Starts it; beside the class, because one that is an application is started in another way. */
  public static final class Start {
    private Start() {}

    public static void main(String[] arguments) {
      Application.launch(EmptyWindow.class, arguments);
    }
  }
}
