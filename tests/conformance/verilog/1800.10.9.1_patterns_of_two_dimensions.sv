// IEEE 1800-2017 clause 10.9.1: one pattern inside of another, and one for all
module t;
  int a [2][3] = '{'{1, 2, 3}, '{4, 5, 6}};
  int b [2][3];
  logic [3:0] c [3:0] = '{default: 4'hf};
  initial begin
    b = '{2{'{3{7}}}};
    $display("%p", a);
    $display("%p", b);
    b[1] = a[0];
    $display("%p %p", b, c);
  end
endmodule
//> '{'{1, 2, 3}, '{4, 5, 6}}
//> '{'{7, 7, 7}, '{7, 7, 7}}
//> '{'{7, 7, 7}, '{1, 2, 3}} '{15, 15, 15, 15}
