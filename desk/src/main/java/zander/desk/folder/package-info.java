/** The folder of the server that is shown, and what a person does in it. */
@NullMarked
package zander.desk.folder;

import org.jspecify.annotations.NullMarked;
