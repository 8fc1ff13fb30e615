// IEEE 1800-2017 clause 25.7: tasks and functions in an interface
interface counter;
  int n = 0;
  function automatic int twice(int a);
    return 2 * a;
  endfunction
  task add(input int k);
    n = n + k;
  endtask
endinterface
module m (counter c);
  initial begin
    c.add(3);
    c.add(c.twice(4));
  end
endmodule
module t;
  counter c ();
  m u (c);
  initial #1 $display("%0d", c.n);
endmodule
//> 11
