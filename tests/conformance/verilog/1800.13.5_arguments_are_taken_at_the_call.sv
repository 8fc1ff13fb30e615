// IEEE 1800-2017 clause 13.5: an output is written back when the task ends
module t;
  int a = 1, seen = 0;
  task automatic change(input int k, output int r);
    r = k + 1;
    #2 r = k + 10;
  endtask
  initial change(a, a);
  initial begin
    #1 seen = a;
    #2 $display("%0d %0d", seen, a);
  end
endmodule
//> 1 11
