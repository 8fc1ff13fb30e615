// IEEE 1800-2017 clause 13.4: output and inout arguments of functions
module t;
  function automatic logic [3:0] split(input logic [7:0] a, output logic [3:0] low, inout int count);
    low = a[3:0];
    count++;
    return a[7:4];
  endfunction
  function automatic void swap(inout int a, inout int b);
    int k = a;
    a = b;
    b = k;
  endfunction
  logic [3:0] h, l;
  int n = 6, m = 1;
  initial begin
    h = split(8'hC3, l, n);
    $display("%h %h %0d", h, l, n);
    swap(n, m);
    $display("%0d %0d", n, m);
  end
endmodule
//> c 3 7
//> 1 7
