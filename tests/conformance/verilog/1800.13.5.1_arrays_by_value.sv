// IEEE 1800-2017 clause 13.5.1: an array that goes into a function as a value stays what it was
module t;
  int a[3] = '{1, 2, 3};
  function automatic int changed(int v[3]);
    v[0] = 100;
    return v[0] + v[2];
  endfunction
  initial $display("%0d %0d", changed(a), a[0]);
endmodule
//> 103 1
