// IEEE 1364-2005 clause 10.4.1: each call has variables of its own
module t;
  function automatic integer factorial(input integer n);
    factorial = n < 2 ? 1 : n * factorial(n - 1);
  endfunction
  initial $display("%0d", factorial(6));
endmodule
//> 720
