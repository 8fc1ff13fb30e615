// IEEE 1800-2017 clause 7.4.2: [n] is [0:n-1], for constants of any kind
module t;
  localparam N = 3;
  logic [7:0] a [N], b [0:N-1];
  initial begin
    foreach (a[i]) a[i] = 8'(i + 10);
    b = a;
    $display("%0d %0d %0d %0d", b[0], b[2], $size(a), $bits(a));
  end
endmodule
//> 10 12 3 24
