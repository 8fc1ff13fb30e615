// IEEE 1800-2017 clause 13.4: a function gives what its name was given last
module t;
  function automatic int biggest(int a, int b);
    biggest = a;
    if (b > biggest) biggest = b;
  endfunction
  initial $display("%0d %0d", biggest(3, 9), biggest(-1, -2));
endmodule
//> 9 -1
