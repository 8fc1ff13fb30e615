// IEEE 1800-2017 clause 7.6: an assignment copies a dynamic array; one of fixed size may be its value
module t;
  int a[] = '{1, 2}, b[], f[3] = '{7, 8, 9};
  initial begin
    b = a;
    b[0] = 5;
    $display("%p %p", a, b);
    b = f;
    $display("%p %b", b, b == a);
  end
endmodule
//> '{1, 2} '{5, 2}
//> '{7, 8, 9} 0
