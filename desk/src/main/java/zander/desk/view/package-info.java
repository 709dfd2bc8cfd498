/** The window: each view shows one model and tells it what the person does. No logic in here. */
@NullMarked
package zander.desk.view;

import org.jspecify.annotations.NullMarked;
