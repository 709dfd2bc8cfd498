package zander.desk.model;

import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyStringProperty;

/** One thing open on a desk. Used on the interface thread only. */
public interface Sheet {
  ReadOnlyStringProperty titleProperty();

  /** Whether closing it would lose something. */
  ReadOnlyBooleanProperty unsavedProperty();

  /** Lets go of what it holds, such as a shell. */
  default void close() {}
}
