// IEEE 1800-2017 clause 13.3.1: a module may say what its tasks are
module automatic t;
  task wait_and_show(int n, int d);
    int k = n;
    #d $display("%0d", k);
  endtask
  initial wait_and_show(1, 5);
  initial wait_and_show(2, 3);
endmodule
//> 2
//> 1
