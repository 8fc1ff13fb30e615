// IEEE 1800-2017 clause 7.2: digits and parts of members are written alone
module t;
  typedef struct packed { logic [7:0] data; logic [3:0] addr; logic write; } order_t;
  order_t o = '0;
  initial begin
    o.data[7:4] = 4'hc;
    o.addr[0] = 1;
    {o.addr[3], o.write} = 2'b11;
    $display("%h %b %b %h", o.data, o.addr, o.write, o);
  end
endmodule
//> c0 1001 1 1813
