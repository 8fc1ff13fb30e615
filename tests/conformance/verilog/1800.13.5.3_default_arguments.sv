// IEEE 1800-2017 clause 13.5.3: what is left out, and what is given by name
module t;
  function automatic int f(int a, int b = 10, int c = 100);
    return a + b + c;
  endfunction
  task automatic show(int n = 7, int w = 0);
    $display("%0d %0d", n, w);
  endtask
  initial begin
    $display("%0d %0d %0d %0d", f(1), f(1, 2), f(.c(3), .a(1)), f(1, , 5));
    show();
    show(.w(4));
  end
endmodule
//> 111 103 14 16
//> 7 0
//> 7 4
