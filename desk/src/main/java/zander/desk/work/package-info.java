/** Work off the interface thread, and failures in words. */
package zander.desk.work;
