/** Finding names and text below a folder, and replacing what was found. */
package zander.core.find;
